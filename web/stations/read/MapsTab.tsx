/** Maps: those of other visits to look at, compare with and copy from; files out and in; cards to print. */
import { Button, Group, Stack, Text, Title } from '@mantine/core'
import { TURN_COLOURS } from '../../../core/palette.ts'
import { withoutKnown } from '../../../core/formats/index.ts'
import { readingsToday } from '../../../core/visit/index.ts'
import type { Reading } from '../../../core/grain/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { SERVICES } from '../../../core/services/index.ts'
import { dateWords } from '../../../core/time/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useQuery } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import type { VisitSummary } from '../../../contract/types.ts'
import { call } from '../../api/call.ts'
import { useHead } from '../../head/loadHead.ts'
import { useMapLayers } from './useMapLayers.ts'
import { viewOf } from '../../../core/head/index.ts'
import { useView } from '../../state/view.ts'
import { newId } from '../../state/words.ts'
import { NO_HOME_CARD, useBrushes } from '../../cards/homeCard.ts'
import { useFieldReadings, useFlowLayer, type StationProps } from '../useStation.ts'
import { useFieldSummary, useMapEditing } from './useMap.ts'
import { PanelHead, Problem } from '../../ui/Panel.tsx'
import { Row, Rows } from '../../ui/Rows.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { FilesIn, FilesOut } from './Files.tsx'
import css from './Read.module.css'
import type { ReadFrame } from './ReadStation.tsx'

const DIFFERENCE_STEPS = [
  [15, TURN_COLOURS[0], 'under 15°'],
  [45, TURN_COLOURS[1], '15–45°'],
  [181, TURN_COLOURS[2], 'over 45°'],
] as const

export function MapsTab({ page, visit, house, frame }: StationProps & { frame: ReadFrame }) {
  const figures = useFigures()
  const map = useMapEditing(visit, { method: 'felt', comb: false })
  const head = useHead()
  const flow = useFlowLayer(visit)
  const readings = useFieldReadings(visit)
  const brushes = useBrushes(page, house, visit)
  const summary = useFieldSummary(readings)
  const [against, setAgainst] = useState<string>()
  const [copied, setCopied] = useState<string>()
  const [all, setAll] = useState(false)
  const turnTo = useView((s) => s.turnTo)
  const choose = useView((s) => s.choose)
  const others = page.visits.filter((v) => v.id !== visit.id && v.endedAtMs !== null)

  const difference = useQuery({
    queryKey: ['difference', visit.id, against, readings],
    queryFn: async () => {
      const other = await call('visit', { params: { id: against! } })
      return head.data!.worker.compare(readings, readingsToday(figures, other, Date.now()))
    },
    enabled: against !== undefined && head.data !== undefined,
    staleTime: Infinity,
    structuralSharing: false,
  })
  const wash = useMemo(
    () => (against && difference.data ? differenceWash(difference.data.degrees) : undefined),
    [against, difference.data],
  )
  // Without WebGL the zones stand for the skin.
  const flatTints = useMemo(
    () =>
      !wash || document.querySelector('.head-flat') === null
        ? []
        : difference.data!.zones.flatMap((z) => {
            const step = DIFFERENCE_STEPS.find(([most]) => z.degrees < most)
            return step ? [{ zoneId: z.zoneId, colour: step[1], opacity: 0.5 }] : []
          }),
    [wash, difference.data],
  )
  const differing = (difference.data?.zones ?? [])
    .filter((z) => z.degrees >= 5)
    .sort((a, b) => b.degrees - a.degrees)
    .slice(0, 6)
  useMapLayers(
    visit,
    useMemo(
      () => ({
        flow,
        ...(wash && { wash }),
        tints: flatTints,
      }),
      [flow, wash, flatTints],
    ),
  )

  const copyFrom = async (other: VisitSummary) => {
    try {
      const source = await call('visit', { params: { id: other.id } })
      const here = new Set(visit.readings.map((r) => r.id))
      const add = source.readings.filter((r) => !here.has(r.id)).map((r) => ({ ...r, id: newId() }))
      const drafts = withoutKnown({ taken: add, left: [] }, visit.readings).taken as Reading[]
      if (drafts.length > 0) map.make({ remove: [], add: drafts })
      setCopied(
        drafts.length > 0
          ? `${drafts.length} ${drafts.length === 1 ? 'reading' : 'readings'} of ${dateWords(other.endedAtMs!)} copied. Undo takes them back.`
          : `The map already holds every reading of ${dateWords(other.endedAtMs!)}.`,
      )
    } catch (error) {
      setCopied(error instanceof Error ? error.message : 'That map could not be fetched.')
    }
  }

  const card = (name: string) => `/clients/${page.client.id}/cards/${name}?visit=${visit.id}`
  return (
    <>
      <PanelHead title="Maps">{frame.onward}</PanelHead>
      {frame.tabs}
      <Scroll label="Maps">
        <Stack gap="md">
          <Problem>{map.problem}</Problem>
          <section>
            <Title order={3}>Of other visits</Title>
            {others.length === 0 && <Text c="dimmed">This is the first map of this client.</Text>}
            <Rows label="Of other visits">
              {others.slice(0, all ? MOST : FIRST).map((v) => (
                <Row
                  key={v.id}
                  acts={
                    <>
                      <Button component={Link} size="sm" to={`?visit=${v.id}`}>
                        Look at
                      </Button>
                      <Button
                        size="sm"
                        aria-pressed={against === v.id}
                        onClick={() => setAgainst(against === v.id ? undefined : v.id)}
                      >
                        Compare
                      </Button>
                      <Button size="sm" disabled={map.frozen} onClick={() => void copyFrom(v)}>
                        Copy
                      </Button>
                    </>
                  }
                >
                  {dateWords(v.endedAtMs!)}{' '}
                  <Text span size="sm" c="dimmed">
                    {SERVICES[v.service].name.toLowerCase()}
                  </Text>
                </Row>
              ))}
            </Rows>
            {others.length > FIRST && !all && (
              <Button variant="bare" size="sm" onClick={() => setAll(true)}>
                All {others.length}
              </Button>
            )}
            {copied && (
              <p role="status">
                {copied}{' '}
                {map.canUndo && (
                  <Button variant="bare" size="sm" onClick={map.undo}>
                    Undo
                  </Button>
                )}
              </p>
            )}
            {against && (
              <div aria-live="polite" data-testid="difference">
                <Group gap="md" className={css.legend}>
                  {DIFFERENCE_STEPS.map(([, colour, words]) => (
                    <span key={words}>
                      <i style={{ background: colour }} /> {words}
                    </span>
                  ))}
                </Group>
                {difference.isPending ? (
                  <Text c="dimmed">Comparing …</Text>
                ) : difference.isError ? (
                  <Problem>{difference.error.message}</Problem>
                ) : differing.length === 0 ? (
                  <p>No zone differs by 5° or more where both maps were read.</p>
                ) : (
                  <Rows label="What differs">
                    {differing.map((z) => (
                      <Row key={z.zoneId} acts={`${Math.round(z.degrees)}°`}>
                        <Button
                          variant="bare"
                          size="sm"
                          onClick={() => {
                            choose(z.zoneId)
                            const record = head.data?.zoneById.get(z.zoneId)
                            if (record) {
                              const v = viewOf(record.centre.normal)
                              turnTo(v.yawDeg, v.pitchDeg)
                            }
                          }}
                        >
                          {zoneName(z.zoneId)}
                        </Button>
                      </Row>
                    ))}
                  </Rows>
                )}
              </div>
            )}
          </section>
          <section>
            <Title order={3}>Side to side</Title>
            <Group gap="xs">
              <Button size="sm" disabled={map.frozen} onClick={() => map.mirrorSide('left')}>
                Client’s left onto the right
              </Button>
              <Button size="sm" disabled={map.frozen} onClick={() => map.mirrorSide('right')}>
                Client’s right onto the left
              </Button>
              <Button size="sm" disabled={!map.canUndo} onClick={map.undo}>
                Undo
              </Button>
            </Group>
          </section>
          <FilesOut visit={visit} summary={summary} />
          <FilesIn map={map} readings={visit.readings} />
          <section>
            <Title order={3}>Cards</Title>
            <Group gap="xs">
              <Button component={Link} size="sm" to={card('mirror')}>
                Mirror card
              </Button>
              <Button component={Link} size="sm" to={card('facing')}>
                Map card
              </Button>
              <Button component={Link} size="sm" to={card('shave')}>
                Home card: shaving
              </Button>
              {brushes && (
                <Button component={Link} size="sm" to={card('home')}>
                  Home card: brushing
                </Button>
              )}
            </Group>
            {page.client.skin.bumpProne && !brushes && <Text c="dimmed">{NO_HOME_CARD}</Text>}
          </section>
        </Stack>
      </Scroll>
    </>
  )
}

/** Other visits shown at first, and at most. */
const FIRST = 4
const MOST = 60

/** Colour and opacity at each vertex by how far the maps differ; nothing where either was not read. */
function differenceWash(degrees: Float32Array): Float32Array {
  const colours = DIFFERENCE_STEPS.map(([, hex]) =>
    [1, 3, 5].map((i) => (parseInt(hex.slice(i, i + 2), 16) / 255) ** 2.2),
  )
  const out = new Float32Array(degrees.length * 4)
  degrees.forEach((d, v) => {
    if (Number.isNaN(d)) return
    const step = DIFFERENCE_STEPS.findIndex(([most]) => d < most)
    out.set([...colours[step]!, step === 0 ? 0.35 : 0.6], 4 * v)
  })
  return out
}
