/** What is known of the whole map: what to do next, and what turns. */
import { Button, Group, Text } from '@mantine/core'
import type { ReactNode } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import { type Reading, whorlWords, type ZoneFlow } from '../../../core/grain/index.ts'
import type { Vec3 } from '../../../core/head/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { useTelling } from '../../head/telling.tsx'
import { PanelHead } from '../../ui/Panel.tsx'
import css from './Read.module.css'
import { READING_METHOD_WORDS } from './words.ts'
import type { FlowSummary } from '../../../core/grain/index.ts'

/** What to do before a zone is chosen. */
export function Overview({
  visit,
  zones,
  flowOf,
  next,
  onNext,
  frozen,
  onward,
}: {
  visit: VisitPage
  zones: readonly ZoneId[]
  flowOf: ReadonlyMap<ZoneId, ZoneFlow>
  next: { zoneId: ZoneId; gain: number } | undefined
  onNext: () => void
  frozen: boolean
  onward: ReactNode
}) {
  const known = zones.filter((z) => flowOf.get(z)?.within !== undefined).length
  const count = visit.readings.length
  return (
    <section>
      <PanelHead title="Read the grain">{onward}</PanelHead>
      <Text mt={4}>
        {count === 0
          ? 'Nothing is read yet, so the head is plain. Drag on it from root to tip, as you feel the hair.'
          : `${known} of ${zones.length} zones of this service are read or lie near a reading. ${count} ${count === 1 ? 'reading' : 'readings'}${count < LEAST_READINGS ? `; a whole head wants about ${LEAST_READINGS}` : ''}.`}
      </Text>
      {next && !frozen && (
        <Group gap="sm" justify="space-between" wrap="nowrap">
          <Text>
            Where next: <b>{zoneName(next.zoneId)}</b>. A reading there would tell most.
          </Text>
          <Button size="sm" onClick={onNext}>
            Test it
          </Button>
        </Group>
      )}
    </section>
  )
}

/** Readings that a whole head wants: with fewer the field between them is loose. */
const LEAST_READINGS = 32

/** Whorls, meeting points, and readings that disagree. */
export function Turning({
  summary,
  zone,
  byId,
  onShow,
  onPick,
}: {
  summary: FlowSummary | undefined
  /** With a zone chosen only what turns there is told. */
  zone: ZoneId | undefined
  byId: ReadonlyMap<string, Reading>
  onShow: (normal: Vec3, zone: ZoneId) => void
  onPick: (reading: Reading) => void
}) {
  const tell = useTelling()
  if (!summary) return null
  const whorls = summary.whorls.filter((w) => zone === undefined || w.zoneId === zone)
  if (whorls.length === 0 && summary.disagreements.length === 0) return null
  return (
    <ul className={css.turning} aria-label="What turns">
      {summary.disagreements.slice(0, 3).map((d) => {
        const [a, b] = [byId.get(d.a), byId.get(d.b)]
        if (!a || !b) return null
        return (
          <li key={d.a + d.b} className={css.disagrees}>
            <span>
              Readings disagree here, {zoneName(a.zoneId)}: {Math.round(d.degrees)}° apart. Check
            </span>
            {[a, b].map((r) => (
              <Button variant="bare" size="compact-sm" key={r.id} onClick={() => onPick(r)}>
                {READING_METHOD_WORDS[r.method]}, {tell(r.zoneId, r, r.tangent).told.words}
              </Button>
            ))}
          </li>
        )
      })}
      {whorls.map((w, i) => (
        <li key={i}>
          <Button variant="bare" size="compact-sm" onClick={() => onShow(w.normal, w.zoneId)}>
            {zoneName(w.zoneId)}: {whorlWords(w)}
          </Button>
        </li>
      ))}
    </ul>
  )
}
