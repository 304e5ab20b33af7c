/** Where a line goes: two candidates side by side with what each takes and when it stands, the steps on the way, an edge that was over-cut. */
import { Button, Group, NumberInput, Table, Text, Title } from '@mantine/core'
import { useMemo, useState } from 'react'
import {
  fillDays,
  type KeepLine,
  lineChange,
  lineSide,
  moveDates,
  stepsFor,
} from '../../../core/lines/index.ts'
import { usualGapDays } from '../../../core/ahead/index.ts'
import { dateAt, dateWords, DAY_MS, daysWords, offsetHere } from '../../../core/time/index.ts'
import { listWords } from '../../../core/words.ts'
import { onZone, type ZoneId } from '../../../core/zones/index.ts'
import { useFigures } from '../../state/figures.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import type { useLinePaths } from '../../marks/useLinePaths.ts'
import type { StationProps } from '../useStation.ts'
import type { LineEditing } from './useLineEditing.ts'

type Paths = ReturnType<typeof useLinePaths>

interface WayProps extends StationProps {
  readonly editing: LineEditing
  readonly paths: Paths
}

export function LineWay(props: WayProps) {
  const { editing } = props
  const { line, frozen } = editing
  if (!line) return null
  const present = presentOf(editing.lines, line)
  const candidates = editing.lines.filter(
    (l) => l.candidate && l.kind === line.kind && lineSide(l) === lineSide(line),
  )
  return (
    <section aria-label="Where the line goes">
      {present?.move && <OnItsWay {...props} line={present} />}
      {present && candidates.length > 0 && (
        <Candidates {...props} present={present} candidates={candidates} />
      )}
      <Group gap="xs" my={6}>
        {present && candidates.length === 0 && !present.move && present.taps.length > 1 && (
          <Button size="sm" disabled={frozen} onClick={() => editing.compare(present)}>
            Move it: two lines to choose from
          </Button>
        )}
        {!line.candidate && <OverCut {...props} line={line} />}
      </Group>
    </section>
  )
}

/** The line that is worked now, of the same kind and side. */
const presentOf = (lines: readonly KeepLine[], line: KeepLine): KeepLine | undefined =>
  line.candidate
    ? lines.find((l) => !l.candidate && l.kind === line.kind && lineSide(l) === lineSide(line))
    : line

/** A line on its way: which step, how much longer. */
function OnItsWay({ page, visit, editing, line }: WayProps & { line: KeepLine }) {
  const { move } = line
  if (!move) return null
  const left = move.steps - move.at
  const gap = usualGapDays(page.visits)
  const there = (visit.slotAtMs ?? Date.now()) + left * gap * DAY_MS
  return (
    <>
      <Text size="sm">
        On its way: step <b>{move.at}</b> of {move.steps}. It goes on by itself at the next{' '}
        {left === 1 ? 'visit' : `${left} visits`}; where it is wanted about {dateWords(there)}.
      </Text>
      <Group gap="xs" my={6}>
        <Button size="sm" disabled={editing.frozen} onClick={() => editing.stepOn(line.id)}>
          Another step now
        </Button>
        <Button
          variant="bare"
          size="sm"
          disabled={editing.frozen}
          onClick={() => editing.stopMove(line.id)}
        >
          Leave it here
        </Button>
      </Group>
    </>
  )
}

function Candidates({
  page,
  visit,
  editing,
  paths,
  present,
  candidates,
}: WayProps & { present: KeepLine; candidates: readonly KeepLine[] }) {
  const figures = useFigures()
  const { head, frozen } = editing
  const from = paths.get(present.id)
  const sparse = (zone: ZoneId) => {
    const density = visit.notes.hair[zone]?.density
    return density === 'sparse' || density === 'none'
  }
  const growth = page.model.growth
  const rows = candidates.flatMap((line) => {
    const path = paths.get(line.id)
    if (!from || !path || !head) return []
    const change = lineChange(from, path, present.keep, (p) => head.nearest(p).zoneId)
    const steps = editing.stepsOf(line.id) ?? stepsFor(figures, change)
    const start = visit.slotAtMs ?? Date.now()
    const dates = moveDates(
      figures,
      change,
      steps,
      start,
      usualGapDays(page.visits),
      (z) => growth[z],
      sparse,
    )
    return [{ line, change, steps, dates }]
  })
  const mm = (x: number) => `${x.toFixed(1)} mm`
  const row = (name: React.ReactNode, of: (r: (typeof rows)[number]) => React.ReactNode) => (
    <Table.Tr>
      <Table.Th scope="row">{name}</Table.Th>
      {rows.map((r) => (
        <Table.Td key={r.line.id}>{of(r)}</Table.Td>
      ))}
    </Table.Tr>
  )
  return (
    <>
      <Title order={2}>Two lines to choose from</Title>
      <Table aria-label="Two lines to choose from">
        <Table.Thead>
          <Table.Tr>
            <Table.Td />
            {rows.map(({ line, steps }) => (
              <Table.Th scope="col" key={line.id}>
                <Button
                  size="sm"
                  variant="strong"
                  disabled={frozen}
                  onClick={() => editing.take(line, present, steps)}
                >
                  Take line {line.candidate!.toUpperCase()}
                </Button>
              </Table.Th>
            ))}
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {row('Out, or in (−)', ({ line }) => (
            <NumberInput
              aria-label={`Line ${line.candidate!.toUpperCase()} moved out by`}
              w={110}
              suffix=" mm"
              min={-20}
              max={20}
              step={1}
              decimalScale={1}
              disabled={frozen}
              placeholder="as drawn"
              value={editing.shiftOf(line.id) ?? ''}
              onChange={(v) => typeof v === 'number' && editing.shift(line.id, v)}
            />
          ))}
          {row('Beard given up', ({ change }) =>
            change.lostMm > 0
              ? `${mm(change.lostMm)} at most, ${mm(change.lostMeanMm)} on average; ${change.lostCm2.toFixed(1)} cm²`
              : 'none',
          )}
          {row('To fill in', ({ change }) =>
            change.fillMm > 0
              ? `${mm(change.fillMm)} at most; ${change.fillCm2.toFixed(1)} cm²`
              : 'none',
          )}
          {row('Visits', ({ line, steps }) => (
            <NumberInput
              aria-label={`Visits for line ${line.candidate!.toUpperCase()}`}
              w={90}
              min={1}
              max={20}
              allowDecimal={false}
              disabled={frozen}
              value={steps}
              onChange={(v) => typeof v === 'number' && v >= 1 && editing.setSteps(line.id, v)}
            />
          ))}
          {row('Stands there', ({ dates }) => dateWords(dates.reachedMs))}
          {row(<Estimate of="line-fills">Filled in</Estimate>, ({ dates }) => (
            <>
              {dates.filled
                ? `${dateWords(dates.filled.evenMs)} (80 %: ${daysWords(dates.filled.earlyMs, dates.filled.lateMs)})`
                : dates.sparse.length > 0
                  ? ''
                  : 'nothing to fill'}
              {dates.sparse.length > 0 && (
                <Text size="sm" c="coral">
                  Not dense enough to fill {listWords(dates.sparse.map((z) => onZone(z)))}.
                </Text>
              )}
            </>
          ))}
        </Table.Tbody>
      </Table>
      <Text size="sm" c="dimmed">
        A step at each visit, about every {Math.round(usualGapDays(page.visits))} days. Drag the
        points of a chosen line to shape it. Hair is told sparse at Hair.
      </Text>
      <Button
        variant="bare"
        size="sm"
        disabled={frozen}
        onClick={() => editing.dropCandidates(candidates)}
      >
        Neither: the line stays
      </Button>
    </>
  )
}

/** An edge that was cut too far: it rests until its hair is there again. */
function OverCut({ page, editing, line }: WayProps & { line: KeepLine }) {
  const figures = useFigures()
  const [mm, setMm] = useState(2)
  const { point, frozen } = editing
  const tap = point === undefined ? undefined : line.taps[point]
  const growth = tap && page.model.growth[tap.zoneId]
  const until = useMemo(() => {
    if (!growth) return undefined
    const days = fillDays(figures, growth).even
    return Number.isFinite(days) ? dateAt(Date.now() + days * DAY_MS, offsetHere) : undefined
  }, [figures, growth])
  if (!tap) return null
  return (
    <Group gap="xs">
      <NumberInput
        aria-label="Cut too far by"
        w={110}
        suffix=" mm"
        min={0.5}
        max={15}
        step={0.5}
        value={mm}
        onChange={(v) => typeof v === 'number' && setMm(v)}
      />
      <Button
        size="sm"
        disabled={frozen || !editing.head}
        onClick={() => editing.overCut(line, point!, mm, until)}
      >
        Cut too far at point {point! + 1}: let it rest
        {until ? ` until ${dateWords(Date.parse(until))}` : ''}
      </Button>
    </Group>
  )
}
