/** Which way of taking hair off suits the chosen place; and the question that everybody asks. */
import { Alert, Button, Group, NumberInput, Stack, Table, Text, Title } from '@mantine/core'
import { lengthIn, lengthMm, PRICE } from '../../../core/house/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useMemo, useState } from 'react'
import {
  type CoarseBy,
  coarseGrowth,
  type MethodHere,
  type MethodYear,
  type Supposed,
  SUPPOSED,
  type ZoneHere,
} from '../../../core/ahead/index.ts'
import type { RangedOdds } from '../../../core/history/index.ts'
import type { DayRange } from '../../../core/regrowth/index.ts'
import {
  type Advised,
  ADVISED_WORDS,
  adviseMethods,
  adviseTogether,
  SOONER,
  THICKNESS,
} from '../../../core/screening/index.ts'
import { oddsWords } from '../../../core/stats/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { dateAt, dayWords, offsetHere } from '../../../core/time/index.ts'
import { useMethods } from '../../api/queries.ts'
import { useUnits } from '../../state/shape.ts'
import { useView } from '../../state/view.ts'
import { todayIso } from '../../state/words.ts'
import { DateField } from '../../ui/DateField.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { Words } from '../../ui/Words.tsx'
import { useServiceZones, type StationProps } from '../useStation.ts'

const SAYS = { suits: 'suits', possible: 'possible', later: 'later', not: 'no' } as const

export function MethodsTab({ page, visit }: StationProps) {
  const figures = useFigures()
  const zones = useServiceZones(visit)
  const chosen = useView((s) => s.chosen)
  const zoneId = chosen && zones.includes(chosen) ? chosen : zones[0]!
  const [event, setEvent] = useState<string>()
  const [asked, setAsked] = useState<'thicker' | 'sooner'>()
  const growth = page.model.growth[zoneId]!
  const hormonal = visit.asked.answers['hormonal-growth']?.yes === true
  const [wished, setSupposed] = useState<Supposed>()
  const supposed = wished ?? (hormonal ? 'hormonal' : 'as-is')
  const [price, setPrice] = useState<number | string>('')
  const told = useMethods(page.client.id, zoneId, supposed).data?.here
  const here = told?.zoneId === zoneId ? told : undefined
  const [measured, setMeasured] = useState<number | string>('')
  const units = useUnits()
  const guess = here?.lengthMm ?? 0
  const nowMm = measured === '' ? guess : lengthMm(Number(measured), units.length)
  const coarse = here?.supposed === 'hormonal'
  const { advice, together } = useMemo(() => {
    const question = {
      zoneId,
      client: page.client.skin,
      hair: visit.notes.hair,
      strays: visit.notes.strays,
      answers: {
        ...visit.asked.answers,
        ...(coarse && { 'hormonal-growth': { yes: true } }),
      },
      growth: coarse ? coarseGrowth(figures) : growth,
      lengthMm: nowMm,
      today: todayIso(),
      event,
    }
    return { advice: adviseMethods(figures, question), together: adviseTogether(figures, question) }
  }, [
    figures,
    zoneId,
    page.client.skin,
    visit.notes,
    visit.asked.answers,
    growth,
    nowMm,
    event,
    coarse,
  ])
  return (
    <Stack gap="sm" py="xs">
      <Group justify="space-between">
        <Title order={2}>{zoneName(zoneId)}</Title>
        <Group gap={6}>
          {(['thicker', 'sooner'] as const).map((q) => (
            <Button
              key={q}
              size="sm"
              aria-expanded={asked === q}
              onClick={() => setAsked(asked === q ? undefined : q)}
            >
              {q === 'thicker' ? 'Thicker?' : 'Sooner?'}
            </Button>
          ))}
        </Group>
      </Group>
      {asked === 'thicker' && (
        <Alert role="note" title={THICKNESS.question}>
          {THICKNESS.answer} <small>{THICKNESS.source}</small>
        </Alert>
      )}
      {asked === 'sooner' && here && (
        <Alert role="note" title={SOONER.question}>
          {SOONER.answer(feltWords(ofAdvised(here, 'blade')), feltWords(ofAdvised(here, 'wax')))}{' '}
          <Estimate mark={SOONER.mark} of="growth" />
        </Alert>
      )}
      <Group gap="md">
        <NumberInput
          label={`Length now, ${units.lengthSign}`}
          w={130}
          step={units.length === 'mm' ? 0.5 : 0.05}
          min={0}
          max={lengthIn(60, units.length)}
          placeholder={units.hairFigure(guess)}
          value={measured}
          onChange={setMeasured}
        />
        <DateField
          label="In order for"
          w={170}
          minDate={todayIso()}
          clearable
          value={event}
          onChange={setEvent}
        />
        <NumberInput
          label={`A visit, ${units.unit(PRICE)}`}
          w={110}
          min={0}
          max={10_000}
          value={price}
          onChange={setPrice}
        />
      </Group>
      <Group gap="sm">
        <Text size="sm">Hair as</Text>
        <Words
          label="What hair is supposed to be"
          data={SUPPOSED.map((value) => ({ value, label: SUPPOSED_WORDS[value] }))}
          value={supposed}
          onChange={(s) => setSupposed(s)}
        />
      </Group>
      {here && supposed !== 'as-is' && here.supposed === 'as-is' && (
        <Text size="sm" c="dimmed">
          {supposed === 'hormonal'
            ? 'Hair here is coarse already: the figures are those of it as it is.'
            : 'Laser finds no dark hair here: the figures are those of it as it is.'}
        </Text>
      )}
      <Table>
        <Table.Tbody>
          {advice.map((a) => (
            <Table.Tr key={a.method} c={a.says === 'not' ? 'dimmed' : 'var(--ink)'}>
              <Table.Th scope="row">
                {ofAdvised(here, a.method)?.method === 'guarded'
                  ? 'Guarded blade'
                  : ADVISED_WORDS[a.method]}
              </Table.Th>
              <Table.Td>
                <b>{SAYS[a.says]}</b>
                {a.from && <small> from {dayWords(a.from, todayIso())}</small>}
              </Table.Td>
              <Table.Td>
                {a.why} <Estimate mark={a.mark} />
                {a.says !== 'not' && (
                  <Came here={ofAdvised(here, a.method)} price={Number(price)} />
                )}
              </Table.Td>
            </Table.Tr>
          ))}
          {(together !== undefined || supposed === 'hormonal') &&
            here?.together.map((t) => (
              <Table.Tr key={t.coarse} c="var(--ink)">
                <Table.Th scope="row">{TOGETHER_WORDS[t.coarse]}</Table.Th>
                <Table.Td>
                  <b>together</b>
                </Table.Td>
                <Table.Td>
                  {TOGETHER_WHY[t.coarse]} <Estimate mark="H" />
                  <Text size="xs" c="dimmed" component="div">
                    <Estimate of="method-together">Redness {rangeWords(t.redness)}</Estimate>, bumps{' '}
                    {rangeWords(t.bumps)}.
                    <Year year={t} price={Number(price)} />
                  </Text>
                </Table.Td>
              </Table.Tr>
            ))}
        </Table.Tbody>
      </Table>
      {together && <Text size="sm">{together}</Text>}
      <Text size="sm" c="dimmed">
        {here?.last &&
          `Last here: ${here.last.name}${here.last.home ? ', at home' : ''}, ${dayWords(dateAt(here.last.atMs, offsetHere), todayIso())}. `}
        Choose another zone on the head. Slow Tide runs blades and tweezers; the rest is advice.
        {measured === '' && (
          <>
            {' '}
            The length is{' '}
            <Estimate mark="P" of="growth">
              worked out from growth
            </Estimate>{' '}
            until it is measured.
          </>
        )}
      </Text>
    </Stack>
  )
}

const SUPPOSED_WORDS: Readonly<Record<Supposed, string>> = {
  'as-is': 'it is',
  hormonal: 'hormones bring it',
  laser: 'laser leaves it',
}

const TOGETHER_WORDS: Readonly<Record<CoarseBy, string>> = {
  tweezers: 'Tweezers and a guarded blade',
  laser: 'Laser and a guarded blade',
}

const TOGETHER_WHY: Readonly<Record<CoarseBy, string>> = {
  tweezers: 'The coarse hairs by their root, the fuzz between with the blade.',
  laser:
    'The coarse hairs thinned elsewhere, by somebody licensed; what is left goes with the fuzz.',
}

/** What is told of a method; of a guarded blade where that is the one that the client has had. */
function ofAdvised(here: ZoneHere | undefined, advised: Advised): MethodHere | undefined {
  const of = (method: string) => here?.methods.find((m) => m.method === method)
  const [own, guarded] = [of(advised), of('guarded')]
  return advised === 'blade' && (guarded?.tries ?? 0) > (own?.tries ?? 0) ? guarded : own
}

/** A middle figure of days with its range, in whole days from three on. */
function daysWords({ even, early, late }: DayRange): string {
  const day = (d: number) => (d < 3 ? d.toFixed(1) : d.toFixed(0))
  return `${day(even)} days (${day(early)} to ${day(late)})`
}

const NO_DAYS: DayRange = { even: 0, early: 0, late: 0 }

function feltWords(told: MethodHere | undefined): string {
  const felt = told?.felt ?? NO_DAYS
  return felt.even < 0.05 ? 'no day at all' : daysWords(felt)
}

const rangeWords = ({ odds, low, high }: RangedOdds) =>
  `${oddsWords(odds)} (${oddsWords(low)} to ${oddsWords(high)})`

const triesWords = ({ tries, here }: MethodHere) =>
  tries === 0
    ? 'never tried: as this skin and the other methods let expect'
    : `${tries} ${tries === 1 ? 'try' : 'tries'}, ${here} here`

/** What a method came to for this client, and a year of it. */
function Came({ here, price }: { readonly here: MethodHere | undefined; readonly price: number }) {
  if (!here) return null
  const { redness, bumps, year } = here
  return (
    <Text size="xs" c="dimmed" component="div">
      <Estimate of="method-odds">Redness {rangeWords(redness)}</Estimate>, bumps {rangeWords(bumps)}
      ; {triesWords(here)}.
      {year ? (
        <Year year={year} price={price} />
      ) : (
        <div>Never smooth: what it leaves is felt at once, or hair is never long enough.</div>
      )}
    </Text>
  )
}

/** A year of it: visits, smooth days, minutes, what is used up, and what the client pays where a price is told. */
function Year({ year, price }: { readonly year: MethodYear; readonly price: number }) {
  const { money } = useUnits()
  return (
    <div>
      <Estimate of="method-year">A year</Estimate>: {Math.round(year.visits)} visits, every{' '}
      {daysWords(year.every)}; {Math.round(year.smooth.mean)} days smooth (
      {Math.round(year.smooth.early)} to {Math.round(year.smooth.late)}); {Math.round(year.minutes)}{' '}
      min here
      {year.cost > 0 && `, ${money(year.cost)} used up`}
      {price > 0 && `; the client pays ${money(Math.round(year.visits) * price)}`}.
    </div>
  )
}
