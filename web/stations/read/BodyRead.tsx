/** Read on the body: strokes on the flat outlines, which parts are wanted, zone by zone. */
import { ON_SKIN } from '../../../core/palette.ts'
import { bodyZone, bodyStem, type ZoneId, zoneName } from '../../../core/zones/index.ts'
import { useHotkeys } from '@mantine/hooks'
import { useMemo } from 'react'
import { useSaveNotes } from '../../api/visitWrites.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useZoneTelling } from '../../head/telling.tsx'
import { useView } from '../../state/view.ts'
import {
  isFrozen,
  useFlowLayer,
  useGrain,
  useServiceZones,
  type StationProps,
} from '../useStation.ts'
import { useLatest, useMapEditing } from './useMap.ts'

/** The zones by the parts among which a client chooses. */
function groupsOf(zones: readonly ZoneId[]): [string, ZoneId[]][] {
  const groups = new Map<string, ZoneId[]>()
  for (const id of zones) {
    const { group } = bodyZone(bodyStem(id)!)
    groups.set(group, [...(groups.get(group) ?? []), id])
  }
  return [...groups]
}

export function BodyRead({ visit }: StationProps) {
  const editing = useMapEditing(visit, { method: 'felt', comb: false })
  const notes = useSaveNotes(visit.id)
  const grain = useGrain(visit)
  const flow = useFlowLayer(visit)
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const tell = useZoneTelling()
  const frozen = isFrozen(visit)
  const zones = useServiceZones(visit)
  const groups = useMemo(() => groupsOf(zones), [zones])
  const kept = new Set<ZoneId>(visit.notes.keptZones)
  const stroke = useLatest(editing.stroke)
  useHeadLayers(
    useMemo(
      () => ({
        flow,
        tints: visit.notes.keptZones.map((zoneId) => ({
          zoneId,
          colour: ON_SKIN.coral,
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
  const want = (own: readonly ZoneId[], wanted: boolean) =>
    notes.change((now) => {
      const rest = now.keptZones.filter((id) => !own.includes(id))
      return { keptZones: wanted ? rest : [...rest, ...own] }
    })
  const read = zones.filter((id) => grain[id]?.source === 'read').length
  return (
    <>
      <h1>
        {read} of {zones.length} zones read
      </h1>
      <p className="soft">
        Draw from root to tip on an outline. Up the page is up the body. What is not wanted today
        stays.
      </p>
      <div className="switch wrap" role="group" aria-label="Parts wanted">
        {groups.map(([name, own]) => {
          const on = own.some((id) => !kept.has(id))
          return (
            <button key={name} aria-pressed={on} disabled={frozen} onClick={() => want(own, !on)}>
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
              <th scope="col">Grows</th>
              <th scope="col" className="num">
                Readings
              </th>
            </tr>
          </thead>
          <tbody>
            {zones.map((id) => {
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
                        ? tell(id, g.growthDirection)?.told.text
                        : `${tell(id, g.growthDirection)?.told.text}, a guess`}
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
