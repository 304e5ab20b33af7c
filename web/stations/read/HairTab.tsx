/** What kind of hair grows where: painted over zones, over what was told at Ask; and strays to tweeze first. */
import { Button, Group, Table, Text, UnstyledButton } from '@mantine/core'
import { HAIR_TONES } from '../../../core/palette.ts'
import { hairIn } from '../../../core/client.ts'
import type { StrokePoint } from '../../../core/grain/index.ts'
import {
  COARSENESSES,
  CURLS,
  DENSITIES,
  GREYS,
  SLIPS_HERE,
  HAIR_KINDS,
  hairWords,
  HEAVIER_SIDES,
  type HeavierSide,
  sideDensity,
  sideWords,
  type ZoneHair,
} from '../../../core/hair/index.ts'
import { zoneName, isSkin, type ZoneId } from '../../../core/zones/index.ts'
import { useMemo, useState } from 'react'
import { useSaveNotes } from '../../api/visitWrites.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import type { ZoneTint } from '../../head/shared.ts'
import { useMapLayers } from './useMapLayers.ts'
import { viewOf } from '../../../core/head/index.ts'
import { useView } from '../../state/view.ts'
import { newId } from '../../state/words.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { isFrozen, useFlowLayer, useServiceZones, type StationProps } from '../useStation.ts'
import { Act } from '../../ui/Act.tsx'
import { PanelHead, Problem } from '../../ui/Panel.tsx'
import { RowButton } from '../../ui/RowButton.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { StageActs } from '../../ui/Stage.tsx'
import { Words } from '../../ui/Words.tsx'
import { SERVICES } from '../../../core/services/index.ts'
import css from './Read.module.css'
import type { ReadFrame } from './ReadStation.tsx'
import { useLatest } from './useMap.ts'

const ROWS = [
  ['kind', 'Kind', HAIR_KINDS],
  ['coarseness', 'Coarseness', COARSENESSES],
  ['density', 'Density', DENSITIES],
  ['curl', 'Curl', CURLS],
  ['grey', 'Grey', GREYS],
  ['slip', 'Slip', SLIPS_HERE],
] as const
type Attribute = (typeof ROWS)[number][0]

export function HairTab({ page, visit, house, frame }: StationProps & { frame: ReadFrame }) {
  const save = useSaveNotes(visit.id)
  const frozen = isFrozen(visit)
  const head = useHead()
  const flow = useFlowLayer(visit)
  const zones = useServiceZones(visit)
  const { hair, strays } = visit.notes
  const { skin } = page.client
  const [brush, setBrush] = useState<ZoneHair>({})
  const [looking, setLooking] = useState<Attribute>('kind')
  const [tweeze, setTweeze] = useState(false)
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const turnTo = useView((s) => s.turnTo)
  const list = useChosenInView(chosen)

  // Only fuzz is taken on anything but lather.
  const fuzz = visit.jobs.some((j) => SERVICES[j.service].family === 'fuzz')
  const fuzzSlip = page.client.schools.fuzzSlip ?? house.schools.fuzzSlip
  const usualSlip = fuzzSlip === 'film' ? 'gel' : fuzzSlip
  const usual = (zone: ZoneId): ZoneHair => ({
    kind: hairIn(zone, skin.faceHair) === 'vellus' ? 'vellus' : 'terminal',
    coarseness: skin.coarseness,
    density: 'medium',
    curl: skin.curl,
    grey: 'none',
    slip: usualSlip,
  })
  const holds = Object.keys(brush).length > 0
  const paint = (ids: readonly ZoneId[], value: ZoneHair) =>
    save.change((now) => ({
      hair: {
        ...now.hair,
        ...Object.fromEntries(ids.map((id) => [id, { ...now.hair[id], ...value }])),
      },
    }))
  const forget = (id: ZoneId) =>
    save.change((now) => ({
      hair: Object.fromEntries(Object.entries(now.hair).filter(([zone]) => zone !== id)),
    }))
  const onTap = useLatest((hit: Hit) => {
    if (frozen || !isSkin(hit.zoneId)) return
    if (tweeze) {
      const { zoneId, point, normal } = hit
      save.change((now) => ({ strays: [...now.strays, { id: newId(), zoneId, point, normal }] }))
    } else if (holds) paint([hit.zoneId], brush)
  })
  const onStroke = useLatest((points: readonly StrokePoint[]) => {
    const ids = [...new Set(points.map((p) => p.zoneId).filter(isSkin))]
    if (ids.length > 0) paint(ids, brush)
  })
  const sides = sideDensity(hair)
  const values = ROWS.find((r) => r[0] === looking)![2] as readonly string[]
  const tints = useMemo<ZoneTint[]>(
    () =>
      zones.map((zoneId) => {
        const value = hair[zoneId]?.[looking] ?? usual(zoneId)[looking]!
        const at = values.indexOf(value)
        return {
          zoneId,
          colour: HAIR_TONES[Math.round((at * 3) / (values.length - 1))]!,
          opacity: hair[zoneId]?.[looking] === undefined ? 0.25 : 0.6,
        }
      }),
    // `usual` depends on the client's skin alone.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [zones, hair, looking, values, skin],
  )
  useMapLayers(
    visit,
    useMemo(
      () => ({
        flow,
        tints,
        spots: strays.map((s) => ({
          id: s.id,
          point: s.point,
          normal: s.normal,
          radiusMm: 2,
          name: 'stray',
          light: true,
        })),
        onTap,
        ...(!frozen && holds && !tweeze && { onStroke }),
      }),
      [flow, tints, strays, onTap, onStroke, frozen, holds, tweeze],
    ),
  )
  const show = (id: ZoneId) => {
    choose(id)
    const record = head.data?.zoneById.get(id)
    if (record) {
      const v = viewOf(record.centre.normal)
      turnTo(v.yawDeg, v.pitchDeg)
    }
  }
  return (
    <>
      <StageActs label="Hair">
        <Act k="undo" side="right" disabled={frozen || !save.canUndo} onAct={save.undo}>
          Undo
        </Act>
      </StageActs>
      <PanelHead title="Hair">{frame.onward}</PanelHead>
      {frame.tabs}
      <Problem>{save.error?.message}</Problem>
      <Scroll label="Hair by zone" ref={list}>
        <Text size="sm" c="dimmed">
          {tweeze
            ? 'Tap each dark stray. They are tweezed before the blade: they dull it and hurt.'
            : holds
              ? 'Tap a zone or drag over several to paint them. What you leave open stays as told at Ask.'
              : 'Choose what you see, then paint it on the head. Faint zones are as told at Ask.'}
        </Text>
        <div className={css.hairBrush}>
          {ROWS.filter(([id]) => fuzz || id !== 'slip').map(([id, name, choices]) => (
            <HairRow
              key={id}
              name={name}
              choices={choices}
              value={brush[id]}
              looking={looking === id}
              disabled={frozen}
              onLook={() => setLooking(id)}
              onPick={(c) => {
                setLooking(id)
                setTweeze(false)
                setBrush(({ [id]: old, ...rest }) =>
                  old === c || c === undefined ? rest : { ...rest, [id]: c },
                )
              }}
            />
          ))}
        </div>
        <Group gap="xs">
          <Button
            size="sm"
            aria-pressed={tweeze}
            disabled={frozen}
            onClick={() => setTweeze((t) => !t)}
          >
            Mark strays
          </Button>
          {chosen && isSkin(chosen) && (
            <>
              <Button
                size="sm"
                disabled={frozen || (!holds && !tweeze)}
                onClick={() => {
                  if (tweeze) {
                    const centre = head.data?.zoneById.get(chosen)?.centre
                    if (centre)
                      save.change((now) => ({
                        strays: [...now.strays, { id: newId(), zoneId: chosen, ...centre }],
                      }))
                  } else paint([chosen], brush)
                }}
              >
                {tweeze ? 'One on ' : 'Paint '}
                {zoneName(chosen)}
              </Button>
              {hair[chosen] && (
                <Button size="sm" disabled={frozen} onClick={() => forget(chosen)}>
                  As told at Ask
                </Button>
              )}
            </>
          )}
        </Group>
        {visit.jobs.some((j) => SERVICES[j.service].family === 'razor') && (
          <Group gap="sm">
            <Text size="sm">Combed down, more work on the client’s</Text>
            <Words
              label="Side with more work"
              data={HEAVIER_SIDES.map((side) => ({ value: side, label: side }))}
              value={visit.notes.heavier ?? ''}
              disabled={frozen}
              onChange={(heavier) => save.change(() => ({ heavier: heavier as HeavierSide }))}
            />
          </Group>
        )}
        {sides && (
          <Text size="sm" c="dimmed">
            {sideWords(sides, skin.sleepsOn)}
          </Text>
        )}
        <Table highlightOnHover>
          <Table.Thead>
            <Table.Tr>
              <Table.Th scope="col">Zone</Table.Th>
              <Table.Th scope="col">Hair</Table.Th>
              <Table.Th data-num scope="col">
                Strays
              </Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {zones.map((id) => {
              const own = hair[id]
              const count = strays.filter((s) => s.zoneId === id).length
              return (
                <Table.Tr
                  key={id}
                  data-chosen={id === chosen || undefined}
                  mod={{ guess: !own }}
                  className={css.row}
                  onClick={() => show(id)}
                >
                  <Table.Td>
                    <RowButton aria-pressed={id === chosen}>{zoneName(id)}</RowButton>
                  </Table.Td>
                  <Table.Td>
                    <span title={own ? undefined : 'as told at Ask'}>
                      {hairWords({ ...usual(id), slip: undefined, ...own })}
                    </span>
                  </Table.Td>
                  <Table.Td data-num>{count || ''}</Table.Td>
                </Table.Tr>
              )
            })}
          </Table.Tbody>
        </Table>
      </Scroll>
    </>
  )
}

/** One attribute of the brush; its name shows it on the head. */
function HairRow({
  name,
  choices,
  value,
  looking,
  disabled,
  onLook,
  onPick,
}: {
  name: string
  choices: readonly string[]
  value: string | undefined
  looking: boolean
  disabled: boolean
  onLook: () => void
  /** Nothing leaves it open again. */
  onPick: (value: string | undefined) => void
}) {
  return (
    <>
      <UnstyledButton
        aria-pressed={looking}
        title="Show this on the head"
        fw={looking ? 650 : 400}
        mih={40}
        onClick={onLook}
      >
        {name}
      </UnstyledButton>
      <Words
        label={name}
        data={[{ value: '', label: 'open' }, ...choices.map((c) => ({ value: c, label: c }))]}
        value={value ?? ''}
        disabled={disabled}
        onChange={(c) => onPick(c === '' ? undefined : c)}
      />
    </>
  )
}
