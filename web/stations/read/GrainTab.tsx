/** The grain: drag on the head from root to tip; the field takes it up everywhere near. */
import type { VisitPage } from '../../../contract/types.ts'
import { READING_METHODS, type ReadingMethod } from '../../../core/grain/index.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { FeelPanel } from './FeelPanel.tsx'
import { Overview, Turning } from './Overview.tsx'
import { useGrainEditing, useGrainKeys, type GrainEditing } from './useGrainEditing.ts'
import { useGrainLayers } from './useGrainLayers.ts'
import { MAP_USES, mapUse, READING_METHOD_WORDS } from './words.ts'
import { ZoneDetail, ZoneRow } from './ZoneDetail.tsx'

export function GrainTab({ visit }: { visit: VisitPage }) {
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
      <WhatIsChosen editing={editing} />
      {map.problem && (
        <p role="alert" className="problem">
          {map.problem}
        </p>
      )}
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
      <ReadTools editing={editing} />
      <ZoneTable editing={editing} />
    </>
  )
}

/** The zone that is chosen, or the map as a whole. */
function WhatIsChosen({ editing }: { editing: GrainEditing }) {
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
        onTurn={editing.turn}
        onTest={editing.testHere}
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
      onShowNext={() => next && editing.show(next.zoneId)}
      frozen={map.frozen}
    />
  )
}

/** How it is found, and how the map is shown. */
function ReadTools({ editing }: { editing: GrainEditing }) {
  return (
    <>
      <div className="read-tools">
        <div className="switch" role="group" aria-label="How it is found">
          {READING_METHODS.map((m: ReadingMethod) => (
            <button
              key={m}
              aria-pressed={editing.drawing.method === m}
              onClick={() => editing.setDrawing((d) => ({ ...d, method: m }))}
            >
              {READING_METHOD_WORDS[m]}
            </button>
          ))}
        </div>
        <div className="switch" role="group" aria-label="Ways of reading">
          <button
            aria-pressed={editing.drawing.comb}
            onClick={() => editing.setDrawing((d) => ({ ...d, comb: !d.comb }))}
            title="One long stroke over several zones leaves a series of readings"
          >
            Comb <kbd>C</kbd>
          </button>
        </div>
        <div className="switch" role="group" aria-label="Undo">
          <button onClick={editing.map.undo} disabled={!editing.map.canUndo}>
            Undo <kbd>Z</kbd>
          </button>
          <button onClick={editing.map.redo} disabled={!editing.map.canRedo}>
            Redo
          </button>
        </div>
      </div>
      <div className="read-tools">
        <div className="switch" role="group" aria-label="Show the map as">
          {MAP_USES.map((u) => (
            <button
              key={u.id}
              aria-pressed={editing.use === u.id}
              onClick={() => editing.setUse(u.id)}
            >
              {u.name}
            </button>
          ))}
        </div>
        <div className="switch" role="group" aria-label="Starting guesses">
          <button aria-pressed={editing.guesses} onClick={() => editing.setGuesses((g) => !g)}>
            Guesses <kbd>G</kbd>
          </button>
        </div>
      </div>
    </>
  )
}

function ZoneTable({ editing }: { editing: GrainEditing }) {
  const { zones, zone, grain, flowOf, use } = editing
  const list = useChosenInView(zone ?? null)
  return (
    <div className="scroll" ref={list}>
      <table className="list tight pick">
        <thead>
          <tr>
            <th scope="col">Zone</th>
            <th scope="col">{mapUse(use).column}</th>
            <th scope="col" className="num">
              Even, R
            </th>
            <th scope="col" className="num">
              Read
            </th>
            <th scope="col">Within</th>
          </tr>
        </thead>
        <tbody>
          {zones.map((id) => (
            <ZoneRow
              key={id}
              grain={grain[id]!}
              flow={flowOf.get(id)}
              use={use}
              chosen={id === zone}
              onChoose={() => editing.show(id)}
            />
          ))}
        </tbody>
      </table>
    </div>
  )
}
