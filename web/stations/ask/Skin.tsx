/** Worker, skin and hair. */
import { Button, Collapse, NumberInput, Stack, Switch, Table, Text } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import {
  BUMP_AREAS,
  type BumpArea,
  type Concern,
  CONCERNS,
  wasTold,
  type SkinAndHair,
} from '../../../core/client.ts'
import { SCHOOLS, schoolWords } from '../../../core/house/index.ts'
import { useChangeClient } from '../../api/queries.ts'
import { useChangeVisit } from '../../api/visitWrites.ts'
import { Problem } from '../../ui/Panel.tsx'
import { PickOne } from '../../ui/PickOne.tsx'
import { Toggles } from '../../ui/Toggles.tsx'
import { Words } from '../../ui/Words.tsx'
import type { StationProps } from '../useStation.ts'

const SKIN_CHOICES: readonly {
  key: 'reactivity' | 'faceHair' | 'coarseness' | 'curl' | 'bumpProne'
  label: string
  choices: readonly (readonly [value: string, words: string])[]
}[] = [
  {
    key: 'reactivity',
    label: 'Skin',
    choices: [
      ['tough', 'tough'],
      ['average', 'average'],
      ['reactive', 'reactive'],
    ],
  },
  {
    key: 'faceHair',
    label: 'Face',
    choices: [
      ['beard', 'beard'],
      ['fuzz', 'fuzz'],
    ],
  },
  {
    key: 'coarseness',
    label: 'Hair',
    choices: [
      ['fine', 'fine'],
      ['medium', 'medium'],
      ['coarse', 'coarse'],
    ],
  },
  {
    key: 'curl',
    label: 'Curl',
    choices: [
      ['straight', 'straight'],
      ['wavy', 'wavy'],
      ['tight', 'tight'],
    ],
  },
  {
    key: 'bumpProne',
    label: 'Bumps',
    choices: [
      ['no', 'seldom'],
      ['yes', 'bump-prone'],
    ],
  },
]

export function Skin({ page, visit, house, frozen }: StationProps & { frozen: boolean }) {
  const client = useChangeClient(page.client.id)
  const changeVisit = useChangeVisit(visit.id)
  const { skin } = page.client
  const set = (key: keyof SkinAndHair, value: string) =>
    client.mutate({
      skin: {
        ...skin,
        [key]: key === 'bumpProne' ? value === 'yes' : value,
        ...(skin.told && { told: { ...skin.told, [key]: true } }),
      },
    })
  return (
    <Stack gap="sm" py="xs">
      <PickOne
        label="Worker"
        disabled={frozen}
        data={house.workers.map((w) => ({ value: w.id, label: `${w.name}, ${w.hand}-handed` }))}
        value={visit.workerId}
        onChange={(workerId) => changeVisit.mutate({ workerId })}
      />
      <Table>
        <Table.Tbody>
          {SKIN_CHOICES.map(({ key, label, choices }) => {
            const value = key === 'bumpProne' ? (skin.bumpProne ? 'yes' : 'no') : skin[key]
            return (
              <Table.Tr key={key}>
                <Table.Th scope="row" w={80}>
                  {label}
                </Table.Th>
                <Table.Td>
                  <Words
                    label={label}
                    data={choices}
                    value={value}
                    onChange={(id) => set(key, id)}
                  />
                </Table.Td>
                <Table.Td c="brass.7">
                  {wasTold(skin, key) ? '' : 'as usual, not told yet'}
                </Table.Td>
              </Table.Tr>
            )
          })}
        </Table.Tbody>
      </Table>
      <MoreOfSkin
        {...{ skin }}
        onChange={(more) => client.mutate({ skin: { ...skin, ...more } })}
      />
      <OwnSchools
        client={page.client}
        house={house}
        onChange={(schools) => client.mutate({ schools })}
      />
      <Text size="sm" c="dimmed">
        Reactive skin gets fewer passes; tight curl and bumps keep the blade with the grain. What
        follows each visit corrects these first words.
      </Text>
      <Problem>{client.error?.message}</Problem>
    </Stack>
  )
}

const PLACES: Readonly<Record<BumpArea, string>> = {
  face: 'face',
  neck: 'neck',
  head: 'head',
  body: 'arms, legs, trunk',
}
const CONCERN_WORDS: Readonly<Record<Concern, string>> = {
  dark: 'comes for dark marks',
  blackhead: 'comes for blackheads',
}
const NOT_TOLD = 'not-told'

/** What else is told of the skin: where it is prone to bumps, its type, whether it is lax, how hair stands out, the side slept on. */
function MoreOfSkin({
  skin,
  onChange,
}: {
  skin: SkinAndHair
  onChange: (more: Partial<SkinAndHair>) => void
}) {
  const [open, opening] = useDisclosure(false)
  const prone: readonly BumpArea[] = skin.bumpAreas ?? BUMP_AREAS
  const told = [skin.type, skin.lax, skin.contrast, skin.sleepsOn].filter((x) => x !== undefined)
  const one = <K extends 'type' | 'contrast' | 'sleepsOn'>(
    key: K,
    label: string,
    choices: readonly (readonly [value: NonNullable<SkinAndHair[K]>, words: string])[],
  ) => (
    <PickOne
      label={label}
      data={[
        { value: NOT_TOLD, label: 'not told' },
        ...choices.map(([value, words]) => ({ value: value, label: words })),
      ]}
      value={skin[key] ?? NOT_TOLD}
      onChange={(v) => onChange({ [key]: v === NOT_TOLD ? undefined : v })}
    />
  )
  return (
    <div>
      {skin.bumpProne && (
        <Toggles
          label="Where bumps come"
          of={BUMP_AREAS.map((id) => ({ id, name: PLACES[id], on: prone.includes(id) }))}
          onToggle={(id, on) => {
            const next = BUMP_AREAS.filter((a) => (a === id ? on : prone.includes(a)))
            // Nowhere is no answer: the last place stays.
            if (next.length === 0) return
            onChange({ bumpAreas: next.length === BUMP_AREAS.length ? undefined : next })
          }}
        />
      )}
      <Button variant="bare" size="sm" aria-expanded={open} onClick={opening.toggle}>
        More of this skin: {told.length === 0 ? 'nothing told' : `${told.length} told`}
      </Button>
      <Collapse expanded={open} keepMounted={false}>
        <Stack gap="sm">
          <Toggles
            label="Comes also for"
            of={CONCERNS.map((id) => ({
              id,
              name: CONCERN_WORDS[id],
              on: skin.concerns?.includes(id) === true,
            }))}
            onToggle={(id, on) => {
              const next = CONCERNS.filter((c) => (c === id ? on : skin.concerns?.includes(c)))
              onChange({ concerns: next.length > 0 ? next : undefined })
            }}
          />
          {one('type', 'Type', [
            ['dry', 'dry'],
            ['normal', 'neither'],
            ['combination', 'combination'],
            ['oily', 'oily'],
          ])}
          <Switch
            label="Mature or lax: shorter strokes, a wider stretch"
            checked={skin.lax === true}
            onChange={(e) => onChange({ lax: e.currentTarget.checked || undefined })}
          />
          <NumberInput
            label="Trimmer set back, where it raises welts"
            w={260}
            suffix=" mm"
            min={0}
            max={3}
            step={0.5}
            value={skin.setBackMm ?? ''}
            placeholder="not set back"
            onChange={(v) =>
              onChange({ setBackMm: typeof v === 'number' && v > 0 ? v : undefined })
            }
          />
          {one('contrast', 'How hair stands out against the skin', [
            ['strong', 'strongly'],
            ['middle', 'somewhat'],
            ['low', 'hardly: fair, grey, or dark on dark'],
          ])}
          {one('sleepsOn', 'Side slept on', [
            ['left', 'left'],
            ['right', 'right'],
            ['either', 'either'],
          ])}
        </Stack>
      </Collapse>
    </div>
  )
}

/** Schools that may differ for one client. */
const OWN = [
  'beardPasses',
  'bumpProneShave',
  'fuzzDirection',
  'fuzzSlip',
  'faceOrder',
  'neckStretch',
  'exfoliate',
  'multiBlade',
  'firstTry',
  'titles',
] as const

function OwnSchools({
  client,
  house,
  onChange,
}: {
  client: StationProps['page']['client']
  house: StationProps['house']
  onChange: (schools: StationProps['page']['client']['schools']) => void
}) {
  const own = Object.keys(client.schools).length
  const [open, opening] = useDisclosure(false)
  return (
    <div>
      <Button variant="bare" size="sm" aria-expanded={open} onClick={opening.toggle}>
        Schools for this client: {own === 0 ? 'as the house' : `${own} of their own`}
      </Button>
      <Collapse expanded={open} keepMounted={false}>
        <Stack gap="sm">
          {OWN.map((id) => (
            <PickOne
              key={id}
              label={SCHOOLS[id].question}
              data={[
                { value: AS_HOUSE, label: `as the house: ${schoolWords(id, house.schools[id])}` },
                ...SCHOOLS[id].choices.map((c) => ({ value: c.id, label: c.text })),
              ]}
              value={client.schools[id] ?? AS_HOUSE}
              onChange={(chosen) => {
                const { [id]: _was, ...rest } = client.schools
                onChange(chosen === AS_HOUSE ? rest : { ...rest, [id]: chosen })
              }}
            />
          ))}
        </Stack>
      </Collapse>
    </div>
  )
}

const AS_HOUSE = 'as-house'
