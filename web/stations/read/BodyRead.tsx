/** Read on arms and legs: strokes on the flat outlines, which parts are wanted, zone by zone. */
import { useHotkeys } from '@mantine/hooks'
import { useMemo } from 'react'
import { clockWords } from '../../../core/grain/clock.ts'
import { BODY_IDS, zoneStem, type ZoneId } from '../../../core/zones/zones.ts'
import { zoneName } from '../../../core/zones/facts.ts'
import { useSaveNotes } from '../../api/queries.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useView } from '../../state/view.ts'
import { isFrozen, useFlowLayer, useGrain, type StationProps } from '../useStation.ts'
import { useLatest, useMapEditing } from './useMap.ts'

const PARTS: readonly (readonly [string, readonly string[]])[] = [
  ['Lower legs', ['knee', 'shin', 'calf']],
  ['Thighs', ['thigh-front', 'thigh-back']],
  ['Arms', ['upper-arm', 'forearm']],
  ['Underarms', ['underarm']],
]

export function BodyRead({ visit }: StationProps) {
  const editing = useMapEditing(visit, { method: 'felt', comb: false })
  const notes = useSaveNotes(visit.id)
  const grain = useGrain(visit)
  const flow = useFlowLayer(visit)
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const frozen = isFrozen(visit)
  const kept = new Set<ZoneId>(visit.notes.keptZones)
  const stroke = useLatest(editing.stroke)
  useHeadLayers(
    useMemo(
      () => ({
        flow,
        tints: visit.notes.keptZones.map((zoneId) => ({
          zoneId,
          colour: '#BF4E36',
          opacity: 0.16,
        })),
        ...(!frozen && { onStroke: stroke }),
      }),
      [flow, visit.notes.keptZones, frozen, stroke],
    ),
  )
  const turn = (degrees: number) => chosen && editing.turn(chosen, degrees)
  useHotkeys([
    ['[', () => turn(-15)],
    [']', () => turn(15)],
    ['Z', () => editing.undo()],
    ['shift+Z', () => editing.redo()],
    ['M', () => chosen && editing.mirror(chosen)],
  ])
  const want = (stems: readonly string[], wanted: boolean) =>
    notes.change((now) => {
      const own = BODY_IDS.filter((id) => stems.includes(zoneStem(id)))
      const rest = now.keptZones.filter((id) => !own.includes(id))
      return { keptZones: wanted ? rest : [...rest, ...own] }
    })
  const read = BODY_IDS.filter((id) => grain[id]?.source === 'read').length
  return (
    <>
      <h1>
        {read} of {BODY_IDS.length} zones read
      </h1>
      <p className="soft">
        Draw from root to tip on an outline. Up the page is up the limb. What is not wanted today
        stays.
      </p>
      <div className="switch wrap" role="group" aria-label="Parts wanted">
        {PARTS.map(([name, stems]) => {
          const on = BODY_IDS.some((id) => stems.includes(zoneStem(id)) && !kept.has(id))
          return (
            <button key={name} aria-pressed={on} disabled={frozen} onClick={() => want(stems, !on)}>
              {name}
            </button>
          )
        })}
      </div>
      {(editing.problem ?? notes.error?.message) && (
        <p role="alert" className="problem">
          {editing.problem ?? notes.error?.message}
        </p>
      )}
      <div className="line-tools">
        <button disabled={!chosen || frozen} onClick={() => turn(-15)}>
          Turn <kbd>[</kbd>
        </button>
        <button disabled={!chosen || frozen} onClick={() => turn(15)}>
          Turn <kbd>]</kbd>
        </button>
        <button disabled={!chosen || frozen} onClick={() => chosen && editing.mirror(chosen)}>
          Mirror <kbd>M</kbd>
        </button>
        <button disabled={!editing.canUndo} onClick={editing.undo}>
          Undo <kbd>Z</kbd>
        </button>
      </div>
      <div className="tab-body" tabIndex={0} role="region" aria-label="Zones">
        <table className="list tight pick">
          <thead>
            <tr>
              <th scope="col">Zone</th>
              <th scope="col">Grows to</th>
              <th scope="col" className="num">
                Readings
              </th>
            </tr>
          </thead>
          <tbody>
            {BODY_IDS.map((id) => {
              const g = grain[id]!
              return (
                <tr key={id} className={id === chosen ? 'chosen' : ''} onClick={() => choose(id)}>
                  <td>
                    <button className="row-button" aria-pressed={id === chosen}>
                      {zoneName(id)}
                    </button>
                  </td>
                  <td>
                    {kept.has(id)
                      ? 'stays'
                      : g.source === 'read'
                        ? clockWords(g.growthDirection)
                        : `${clockWords(g.growthDirection)}, a guess`}
                  </td>
                  <td className="num">{g.count}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
    </>
  )
}
