/** One zone of the map: its row in the list, and all that is known of it when it is chosen. */
import { Button, Group, Table, Text, UnstyledButton } from '@mantine/core'
import { useState, type ReactNode } from 'react'
import {
  withinWords,
  toRadians,
  type Reading,
  type ZoneGrain,
  type ZoneFlow,
  type MapUse,
  usedBearing,
} from '../../../core/grain/index.ts'
import { ZONE_FACTS, zoneName, zoneStem, type ZoneId } from '../../../core/zones/index.ts'
import { dateWords } from '../../../core/time/index.ts'
import { PictureHour, usePictureAngle, useTelling, useZoneTelling } from '../../head/telling.tsx'
import { Estimate } from '../../ui/Estimate.tsx'
import { PanelHead } from '../../ui/Panel.tsx'
import { RowButton } from '../../ui/RowButton.tsx'
import { Dial } from './Dial.tsx'
import css from './Read.module.css'
import type { MapEditing } from './useMap.ts'
import { mapUse } from './words.ts'
import { READING_METHOD_WORDS } from './words.ts'

export function ZoneRow({
  grain,
  flow,
  use,
  chosen,
  waiting,
  onChoose,
}: {
  grain: ZoneGrain
  flow: ZoneFlow | undefined
  use: MapUse
  chosen: boolean
  /** The field is still worked out. */
  waiting: boolean
  onChoose: () => void
}) {
  const read = grain.source === 'read'
  const near = !read && flow?.within !== undefined && flow.growthDirection !== undefined
  const bearing = read ? grain.growthDirection : near ? flow.growthDirection : undefined
  const parts = flow?.readInParts || grain.readInParts
  const tell = useZoneTelling()
  return (
    <Table.Tr
      data-chosen={chosen || undefined}
      mod={{ guess: !read }}
      className={css.row}
      onClick={onChoose}
    >
      <Table.Td>
        <RowButton aria-pressed={chosen}>{zoneName(grain.zoneId)}</RowButton>
      </Table.Td>
      <Table.Td>
        {grain.contradictory
          ? 'readings cancel out'
          : bearing === undefined
            ? '–'
            : `${near ? '≈ ' : ''}${tell(grain.zoneId, usedBearing(bearing, use))?.told.words ?? ''}${parts ? ', in parts' : ''}`}
      </Table.Td>
      <Table.Td data-num>{grain.count || ''}</Table.Td>
      <Table.Td data-num>
        {flow?.within !== undefined ? `${flow.within}°` : waiting ? '…' : read ? 'in part' : '–'}
      </Table.Td>
    </Table.Tr>
  )
}

/** So many readings of a zone are shown until more are asked for. */
const SHOWN = 2

export function ZoneDetail({
  zone,
  grain,
  flow,
  readings,
  picked,
  onPick,
  use,
  map,
  onward,
}: {
  zone: ZoneId
  grain: ZoneGrain
  flow: ZoneFlow | undefined
  readings: readonly Reading[]
  picked: string | undefined
  onPick: (id: string) => void
  use: MapUse
  map: MapEditing
  onward: ReactNode
}) {
  const read = grain.source === 'read'
  const near = !read && flow?.within !== undefined && flow.growthDirection !== undefined
  const growth = near ? flow.growthDirection : grain.growthDirection
  const bearing = usedBearing(growth, use)
  const verb = mapUse(use).verb
  const way = useZoneTelling()(zone, bearing)
  const angle = usePictureAngle(way)
  const spread =
    flow?.within !== undefined ? toRadians(flow.within) : grain.summary?.standardDeviation
  return (
    <section aria-live="polite">
      <PanelHead title={zoneName(zone)}>{onward}</PanelHead>
      <Group gap="lg" wrap="nowrap" mt={4}>
        <Dial size={64} angle={angle} guess={!read} spread={spread} />
        <div>
          <p className="big">
            {grain.contradictory
              ? 'no one direction'
              : `${read ? verb : near ? `≈ ${verb}` : use === 'growth' ? 'may grow' : `perhaps ${verb}`} ${way?.told.text ?? ''}`}
          </p>
          <Text size="sm" c="dimmed">
            {grain.contradictory ? (
              'The readings cancel each other out: feel again, in parts.'
            ) : (
              <>
                <span className={css.hour}>
                  <PictureHour way={way} />
                </span>
                {read || near ? (
                  <Surety grain={grain} flow={flow} near={near} />
                ) : (
                  <Estimate of="grain-guess">a starting guess</Estimate>
                )}
              </>
            )}
          </Text>
        </div>
      </Group>
      {readings.length > 0 ? (
        <Readings {...{ readings, picked, onPick, map }} />
      ) : (
        <Group gap="sm" wrap="nowrap" mt={4}>
          <Text size="sm" c="dimmed" flex={1}>
            {ZONE_FACTS[zoneStem(zone)].watch}
          </Text>
          <Button
            variant="bare"
            size="sm"
            disabled={map.frozen}
            onClick={() => map.takeGuess(zone)}
          >
            Take the guess
          </Button>
        </Group>
      )}
    </section>
  )
}

/** How surely a zone is known: words first, the statistics under the mark. */
function Surety({
  grain,
  flow,
  near,
}: {
  grain: ZoneGrain
  flow: ZoneFlow | undefined
  near: boolean
}) {
  const turns = flow?.readInParts || grain.readInParts
  if (flow && flow.within === undefined) return <>read in part: less than half of it is known</>
  return (
    <>
      {flow?.within !== undefined && (
        <>
          <Estimate of="grain-within">{withinWords(flow.within)}</Estimate>
          {near ? ', from readings beside it: read it to be sure' : ''} ·{' '}
        </>
      )}
      <Estimate of="grain-even">{turns ? 'turns here: read it in parts' : 'even'}</Estimate>
    </>
  )
}

/** The readings of a zone, newest first; the picked one can be forgotten. */
function Readings({
  readings,
  picked,
  onPick,
  map,
}: {
  readings: readonly Reading[]
  picked: string | undefined
  onPick: (id: string) => void
  map: MapEditing
}) {
  const tell = useTelling()
  const [all, setAll] = useState(false)
  const newest = [...readings].sort((a, b) => b.atMs - a.atMs)
  const shown = all ? newest : newest.filter((r, i) => i < SHOWN || r.id === picked)
  const chosen = readings.find((r) => r.id === picked)
  const words = (r: Reading) => tell(r.zoneId, r, r.tangent).told.words
  return (
    <Group mt={4} gap={0} className={css.readings} wrap="nowrap">
      <ul aria-label="Readings of this zone">
        {shown.map((r) => (
          <li key={r.id}>
            <UnstyledButton aria-pressed={r.id === picked} onClick={() => onPick(r.id)}>
              {READING_METHOD_WORDS[r.method]} {words(r)}
              {r.answers && `, ${r.answers.length} answers`}, {dateWords(r.atMs)}
            </UnstyledButton>
          </li>
        ))}
        {newest.length > shown.length && (
          <li>
            <UnstyledButton onClick={() => setAll(true)}>
              {newest.length - shown.length} more
            </UnstyledButton>
          </li>
        )}
        {!map.frozen && (
          <li>
            {chosen ? (
              <Button
                variant="bare"
                size="compact-sm"
                aria-label={`Forget this reading: ${READING_METHOD_WORDS[chosen.method]}, ${words(chosen)}`}
                onClick={() => map.forget([chosen])}
              >
                Forget
              </Button>
            ) : (
              <Button variant="bare" size="compact-sm" onClick={() => map.forget(readings)}>
                Forget all
              </Button>
            )}
          </li>
        )}
      </ul>
    </Group>
  )
}
