/** Maps: those of other visits to look at, compare with and copy from; files out and in; cards to print. */
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
import { useHeadLayers } from '../../state/layers.ts'
import { viewOf } from '../../../core/head/index.ts'
import { useView } from '../../state/view.ts'
import { newId } from '../../state/words.ts'
import { NO_HOME_CARD, useBrushes } from '../../cards/homeCard.ts'
import { useFieldReadings, useFlowLayer, type StationProps } from '../useStation.ts'
import { useFieldSummary, useMapEditing } from './useMap.ts'
import { FilesIn, FilesOut } from './Files.tsx'

const DIFFERENCE_STEPS = [
  [15, TURN_COLOURS[0], 'under 15°'],
  [45, TURN_COLOURS[1], '15–45°'],
  [181, TURN_COLOURS[2], 'over 45°'],
] as const

export function MapsTab({ page, visit, house }: StationProps) {
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
  useHeadLayers(
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

  return (
    <>
      <h1>Maps</h1>
      <div className="tab-body" tabIndex={0} role="region" aria-label="Maps">
        {map.problem && (
          <p role="alert" className="problem">
            {map.problem}
          </p>
        )}
        <section>
          <h2>Of other visits</h2>
          {others.length === 0 ? (
            <p className="soft">This is the first map of this client.</p>
          ) : (
            <ul className="plain-list maps-list">
              {others.slice(0, all ? 60 : 4).map((v) => (
                <li key={v.id}>
                  <span>
                    {dateWords(v.endedAtMs!)}{' '}
                    <small className="soft">{SERVICES[v.service].name.toLowerCase()}</small>
                  </span>
                  <span className="pair">
                    <Link to={`?visit=${v.id}`}>Look at</Link>
                    <button
                      aria-pressed={against === v.id}
                      onClick={() => setAgainst(against === v.id ? undefined : v.id)}
                    >
                      Compare
                    </button>
                    <button disabled={map.frozen} onClick={() => void copyFrom(v)}>
                      Copy
                    </button>
                  </span>
                </li>
              ))}
            </ul>
          )}
          {others.length > 4 && !all && (
            <button className="link" onClick={() => setAll(true)}>
              All {others.length}
            </button>
          )}
          {copied && (
            <p role="status">
              {copied}{' '}
              {map.canUndo && (
                <button className="link" onClick={map.undo}>
                  Undo
                </button>
              )}
            </p>
          )}
          {against && (
            <div className="difference" aria-live="polite">
              <p className="legend">
                {DIFFERENCE_STEPS.map(([, colour, words]) => (
                  <span key={words}>
                    <i style={{ background: colour }} /> {words}
                  </span>
                ))}
              </p>
              {difference.isPending ? (
                <p className="soft">Comparing …</p>
              ) : difference.isError ? (
                <p role="alert">{difference.error.message}</p>
              ) : differing.length === 0 ? (
                <p>No zone differs by 5° or more where both maps were read.</p>
              ) : (
                <ul className="plain-list">
                  {differing.map((z) => (
                    <li key={z.zoneId}>
                      <button
                        className="link"
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
                      </button>
                      <span>{Math.round(z.degrees)}°</span>
                    </li>
                  ))}
                </ul>
              )}
            </div>
          )}
        </section>
        <section>
          <h2>Side to side</h2>
          <div className="line-tools">
            <button disabled={map.frozen} onClick={() => map.mirrorSide('left')}>
              Client’s left onto the right
            </button>
            <button disabled={map.frozen} onClick={() => map.mirrorSide('right')}>
              Client’s right onto the left
            </button>
            <button disabled={!map.canUndo} onClick={map.undo}>
              Undo
            </button>
          </div>
        </section>
        <FilesOut visit={visit} summary={summary} />
        <FilesIn map={map} readings={visit.readings} />
        <section>
          <h2>Cards</h2>
          <div className="line-tools">
            <Link
              className="like-button"
              to={`/clients/${page.client.id}/cards/mirror?visit=${visit.id}`}
            >
              Mirror card
            </Link>
            {brushes && (
              <Link
                className="like-button"
                to={`/clients/${page.client.id}/cards/home?visit=${visit.id}`}
              >
                Home card
              </Link>
            )}
          </div>
          {page.client.skin.bumpProne && !brushes && <p className="soft">{NO_HOME_CARD}</p>}
        </section>
      </div>
    </>
  )
}

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
