/** The first sessions of a newcomer: what was expected, what came, and the verdict after each. */
import { Badge, Stack, Table, Text, Title } from '@mantine/core'
import { useMemo } from 'react'
import {
  courseOf,
  type CourseSession,
  rangeWords,
  THINGS,
  VERDICT_WORDS,
} from '../../../core/history/index.ts'
import { lastLook } from '../../../core/regrowth/index.ts'
import { mirrorZone, onZone, type ZoneId } from '../../../core/zones/index.ts'
import { dateWords } from '../../../core/time/index.ts'
import { capital } from '../../../core/words.ts'
import { useHistory } from '../../api/queries.ts'
import { useFigures } from '../../state/figures.ts'
import { Estimate } from '../../ui/Estimate.tsx'
import type { StationProps } from '../useStation.ts'

const COLOURS = { 'go-on': 'kelp', change: 'brass', stop: 'coral', wait: 'gray' } as const

/** The course of what this visit does; nothing where the client is no newcomer to it. */
export function Course({ page, visit }: StationProps) {
  const figures = useFigures()
  const history = useHistory(page.client.id)
  const { skin } = page.client
  const course = useMemo(() => {
    if (!history.data) return undefined
    const { visits, looks } = history.data
    const own = visits.filter((v) => v.service === visit.service)
    return courseOf(figures, skin, own, looks)
  }, [figures, history.data, visit.service, skin])
  if (!course || course.sessions.length === 0) return null
  const last = course.sessions.at(-1)!
  return (
    <Stack component="section" gap={4} mb="sm" aria-label="First sessions">
      <Title order={2}>First sessions</Title>
      <p>
        <b>{capital(VERDICT_WORDS[last.verdict])}</b>
        {last.thing && `: ${THINGS[last.thing]}`}. {last.why}
      </p>
      <Table>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Session</Table.Th>
            <Table.Th scope="col">
              <Estimate of="course">Expected bumps</Estimate>
            </Table.Th>
            <Table.Th scope="col">Came</Table.Th>
            <Table.Th scope="col">Redness</Table.Th>
            <Table.Th scope="col">Verdict</Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {course.sessions.map((s) => (
            <Session key={s.visitId} session={s} />
          ))}
          {course.next && (
            <Table.Tr>
              <Table.Td>the next</Table.Td>
              <Table.Td>{rangeWords(course.next)}</Table.Td>
              <Table.Td colSpan={3} c="dimmed">
                with a load like the last one’s
              </Table.Td>
            </Table.Tr>
          )}
        </Table.Tbody>
      </Table>
      <OtherSide {...{ page, visit, last }} />
    </Stack>
  )
}

function Session({ session: s }: { session: CourseSession }) {
  return (
    <Table.Tr>
      <Table.Td>
        {s.nth === 0 ? 'Trial strip' : s.nth}, {dateWords(s.endedAtMs)}
      </Table.Td>
      <Table.Td>{rangeWords(s.expected)}</Table.Td>
      <Table.Td>{s.bumps ?? 'not counted'}</Table.Td>
      <Table.Td>{s.worst ?? 'not told'}</Table.Td>
      <Table.Td>
        <Badge color={COLOURS[s.verdict]} variant="light">
          {VERDICT_WORDS[s.verdict]}
        </Badge>
      </Table.Td>
    </Table.Tr>
  )
}

/** A trial strip beside the same place of the other side, which nobody worked. */
function OtherSide({
  visit,
  last,
}: Pick<StationProps, 'page' | 'visit'> & { last: CourseSession }) {
  if (last.nth !== 0 || visit.id !== last.visitId) return null
  const zones = Object.keys(visit.loads ?? {}) as ZoneId[]
  const strip = zones.filter((z) => mirrorZone(z) !== z)
  if (strip.length === 0) return null
  const latest = lastLook({ endedAtMs: last.endedAtMs, answers: visit.answers })
  const of = (zone: ZoneId) => latest?.zones.find((z) => z.zoneId === zone)
  const words = (zone: ZoneId) => {
    const z = of(zone)
    return z ? `redness ${z.redness}, ${z.bumps} bumps` : 'nothing'
  }
  return (
    <>
      {strip.map((zone) => (
        <Text size="sm" key={zone}>
          {latest
            ? `Noted at the last look, ${dateWords(latest.atMs)}: the strip ${onZone(zone)} ${words(zone)}; on the other side, not worked, ${words(mirrorZone(zone))}.`
            : `Look at the strip ${onZone(zone)} and at the same place ${onZone(mirrorZone(zone))}, which was not worked, and tell both at Looks.`}
        </Text>
      ))}
    </>
  )
}
