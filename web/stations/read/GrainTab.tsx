/** The grain: drag on the head from root to tip; the field takes it up everywhere near. */
import { Table } from '@mantine/core'
import type { VisitPage } from '../../../contract/types.ts'
import { READING_METHODS } from '../../../core/grain/index.ts'
import { Act } from '../../ui/Act.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { StageActs, StageHow, StageShown } from '../../ui/Stage.tsx'
import { Words } from '../../ui/Words.tsx'
import { useChosenInView } from '../useChosenInView.ts'
import { FeelPanel } from './FeelPanel.tsx'
import { Overview, Turning } from './Overview.tsx'
import type { ReadFrame } from './ReadStation.tsx'
import { useGrainEditing, useGrainKeys, type GrainEditing } from './useGrainEditing.ts'
import { useGrainLayers } from './useGrainLayers.ts'
import { MAP_USES, mapUse, READING_METHOD_WORDS } from './words.ts'
import { ZoneDetail, ZoneRow } from './ZoneDetail.tsx'

export function GrainTab({ visit, frame }: { visit: VisitPage; frame: ReadFrame }) {
  const editing = useGrainEditing(visit)
  const { map, feel, choose, face, setPicked } = editing
  useGrainLayers(editing)
  useGrainKeys(editing)
  if (feel) {
    return (
      <FeelPanel
        key={feel.point.join()}
        place={feel}
        onRing={editing.setRing}
        onFound={(reading) => map.make({ remove: [], add: [reading] })}
        onClose={() => editing.setFeel(undefined)}
      />
    )
  }
  return (
    <>
      <RoundTheHead editing={editing} />
      <WhatIsChosen editing={editing} frame={frame} />
      <Problem>{map.problem}</Problem>
      <Turning
        summary={editing.summary}
        zone={editing.zone}
        byId={editing.byId}
        onShow={(normal, id) => {
          choose(id)
          face(normal)
        }}
        onPick={(r) => {
          choose(r.zoneId)
          setPicked(r.id)
          face(r.normal)
        }}
      />
      {frame.tabs}
      <ZoneTable editing={editing} />
    </>
  )
}

/** The zone that is chosen, or the map as a whole. */
function WhatIsChosen({ editing, frame }: { editing: GrainEditing; frame: ReadFrame }) {
  const { visit, map, zone, grain, flowOf, next, picked, setPicked } = editing
  if (zone && grain[zone]) {
    return (
      <ZoneDetail
        zone={zone}
        grain={grain[zone]}
        flow={flowOf.get(zone)}
        readings={visit.readings.filter((r) => r.zoneId === zone)}
        picked={picked}
        onPick={(id) => setPicked(id === picked ? undefined : id)}
        use={editing.use}
        map={map}
        onward={frame.onward}
      />
    )
  }
  return (
    <Overview
      visit={visit}
      zones={editing.zones}
      flowOf={flowOf}
      next={next && { zoneId: next.zoneId, gain: next.gain }}
      onNext={() => next && editing.beginTest(next)}
      frozen={map.frozen}
      onward={frame.onward}
    />
  )
}

/** What is done on the head, what it shows, and how a direction is found. */
function RoundTheHead({ editing }: { editing: GrainEditing }) {
  const { map, zone, drawing, next } = editing
  const { frozen } = map
  const reading = map.reading(editing.picked)
  const nothingToTurn = frozen || (!zone && !reading)
  return (
    <>
      <StageActs label="Ways of reading">
        <Act
          k="stroke"
          side="right"
          pressed={!drawing.comb}
          disabled={frozen}
          onAct={() => editing.setDrawing((d) => ({ ...d, comb: false }))}
        >
          Stroke
        </Act>
        <Act
          k="comb"
          side="right"
          pressed={drawing.comb}
          disabled={frozen}
          onAct={() => editing.setDrawing((d) => ({ ...d, comb: !d.comb }))}
        >
          Comb
        </Act>
        <Act k="test" side="right" disabled={frozen} onAct={editing.testHere}>
          Test
        </Act>
        <Act
          k="mirror"
          side="right"
          disabled={frozen || !zone}
          onAct={() => zone && map.mirror(zone)}
        >
          Mirror
        </Act>
        <Act k="turn-back" side="right" disabled={nothingToTurn} onAct={() => editing.turn(-15)}>
          Turn back
        </Act>
        <Act k="turn-on" side="right" disabled={nothingToTurn} onAct={() => editing.turn(15)}>
          Turn on
        </Act>
        <Act k="next" side="right" disabled={!next} onAct={editing.toNext}>
          Where next
        </Act>
        <Act
          k="guesses"
          side="right"
          pressed={editing.guesses}
          onAct={() => editing.setGuesses((g) => !g)}
        >
          Guesses
        </Act>
        <Act k="undo" side="right" disabled={!map.canUndo} onAct={map.undo}>
          Undo
        </Act>
        <Act k="redo" side="right" disabled={!map.canRedo} onAct={map.redo}>
          Redo
        </Act>
      </StageActs>
      <StageShown>
        <Words
          label="Show the map as"
          data={MAP_USES.map((u) => ({ value: u.id, label: u.name }))}
          value={editing.use}
          onChange={editing.setUse}
        />
      </StageShown>
      <StageHow>
        <Words
          label="How it is found"
          data={READING_METHODS.map((m) => ({ value: m, label: READING_METHOD_WORDS[m] }))}
          value={drawing.method}
          onChange={(method) => editing.setDrawing((d) => ({ ...d, method }))}
        />
      </StageHow>
    </>
  )
}

function ZoneTable({ editing }: { editing: GrainEditing }) {
  const { zones, zone, grain, flowOf, use } = editing
  const list = useChosenInView(zone ?? null)
  return (
    <Scroll label="Zones" ref={list}>
      <Table highlightOnHover>
        <Table.Thead>
          <Table.Tr>
            <Table.Th scope="col">Zone</Table.Th>
            <Table.Th scope="col">{mapUse(use).column}</Table.Th>
            <Table.Th data-num scope="col">
              Readings
            </Table.Th>
            <Table.Th data-num scope="col" w={64}>
              Within
            </Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody>
          {zones.map((id) => (
            <ZoneRow
              key={id}
              grain={grain[id]!}
              flow={flowOf.get(id)}
              use={use}
              chosen={id === zone}
              waiting={editing.summary === undefined}
              onChoose={() => editing.show(id)}
            />
          ))}
        </Table.Tbody>
      </Table>
    </Scroll>
  )
}
