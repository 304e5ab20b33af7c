/** Read on the body: strokes on the flat outlines, which parts are wanted, zone by zone. */
import { Table, Text } from '@mantine/core'
import { ON_SKIN } from '../../../core/palette.ts'
import { bodyZone, bodyStem, type ZoneId, zoneName } from '../../../core/zones/index.ts'
import { useMemo } from 'react'
import { useSaveNotes } from '../../api/visitWrites.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useZoneTelling } from '../../head/telling.tsx'
import { useView } from '../../state/view.ts'
import {
  isFrozen,
  useFlowLayer,
  useGrain,
  useStrokedZones,
  type StationProps,
} from '../useStation.ts'
import { Act } from '../../ui/Act.tsx'
import { PanelHead, Problem } from '../../ui/Panel.tsx'
import { RowButton } from '../../ui/RowButton.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { StageActs } from '../../ui/Stage.tsx'
import { Toggles } from '../../ui/Toggles.tsx'
import css from './Read.module.css'
import type { ReadFrame } from './ReadStation.tsx'
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

export function BodyRead({ visit, frame }: StationProps & { frame: ReadFrame }) {
  const editing = useMapEditing(visit, { method: 'felt', comb: false })
  const notes = useSaveNotes(visit.id)
  const grain = useGrain(visit)
  const flow = useFlowLayer(visit)
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const tell = useZoneTelling()
  const frozen = isFrozen(visit)
  const zones = useStrokedZones(visit)
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
  const want = (own: readonly ZoneId[], wanted: boolean) =>
    notes.change((now) => {
      const rest = now.keptZones.filter((id) => !own.includes(id))
      return { keptZones: wanted ? rest : [...rest, ...own] }
    })
  const read = zones.filter((id) => grain[id]?.source === 'read').length
  const idle = !chosen || frozen
  return (
    <>
      <StageActs label="Ways of reading">
        <Act k="mirror" side="right" disabled={idle} onAct={() => chosen && editing.mirror(chosen)}>
          Mirror
        </Act>
        <Act k="turn-back" side="right" disabled={idle} onAct={() => turn(-15)}>
          Turn back
        </Act>
        <Act k="turn-on" side="right" disabled={idle} onAct={() => turn(15)}>
          Turn on
        </Act>
        <Act k="undo" side="right" disabled={!editing.canUndo} onAct={editing.undo}>
          Undo
        </Act>
        <Act k="redo" side="right" disabled={!editing.canRedo} onAct={editing.redo}>
          Redo
        </Act>
      </StageActs>
      <PanelHead title={`${read} of ${zones.length} zones read`}>{frame.onward}</PanelHead>
      <Text size="sm" c="dimmed">
        Draw from root to tip on an outline. Up the page is up the body. What is not wanted today
        stays.
      </Text>
      <Toggles
        label="Parts wanted"
        disabled={frozen}
        of={groups.map(([name, own]) => ({ id: name, name, on: own.some((id) => !kept.has(id)) }))}
        onToggle={(id, on) => want(groups.find(([name]) => name === id)![1], on)}
      />
      <Problem>{editing.problem ?? notes.error?.message}</Problem>
      {frame.tabs}
      <Scroll label="Zones">
        <Table highlightOnHover>
          <Table.Thead>
            <Table.Tr>
              <Table.Th scope="col">Zone</Table.Th>
              <Table.Th scope="col">Grows</Table.Th>
              <Table.Th data-num scope="col">
                Readings
              </Table.Th>
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            {zones.map((id) => {
              const g = grain[id]!
              return (
                <Table.Tr
                  key={id}
                  data-chosen={id === chosen || undefined}
                  className={css.row}
                  onClick={() => choose(id)}
                >
                  <Table.Td>
                    <RowButton aria-pressed={id === chosen}>{zoneName(id)}</RowButton>
                  </Table.Td>
                  <Table.Td>
                    {kept.has(id)
                      ? 'stays'
                      : g.source === 'read'
                        ? tell(id, g.growthDirection)?.told.text
                        : `${tell(id, g.growthDirection)?.told.text}, a guess`}
                  </Table.Td>
                  <Table.Td data-num>{g.count}</Table.Td>
                </Table.Tr>
              )
            })}
          </Table.Tbody>
        </Table>
      </Scroll>
    </>
  )
}
