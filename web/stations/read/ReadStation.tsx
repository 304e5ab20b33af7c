/** Read: the grain of the head, its marks, the lines to keep, the kinds of hair, and the maps of other visits. */
import { useFigures } from '../../state/figures.ts'
import { useHotkeys } from '@mantine/hooks'
import { useCallback, useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { useSaveAsked } from '../../api/visitWrites.ts'
import { firstBrush, MarksPanel, markSpots, useMarking } from '../../marks/MarksPanel.tsx'
import { useKeptLines } from '../../marks/useLinePaths.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { isFrozen, useFlowLayer, useServiceZones, type StationProps } from '../useStation.ts'
import { isBodyService } from '../../../core/services/index.ts'
import { BodyRead } from './BodyRead.tsx'
import { GrainTab } from './GrainTab.tsx'
import { HairTab } from './HairTab.tsx'
import { LinesTab } from './LinesTab.tsx'
import { MapsTab } from './MapsTab.tsx'

const TABS = [
  ['grain', 'Grain'],
  ['marks', 'Marks'],
  ['lines', 'Lines'],
  ['hair', 'Hair'],
  ['maps', 'Maps'],
] as const
type Tab = (typeof TABS)[number][0]

export function ReadStation(props: StationProps) {
  const { page, visit } = props
  const [tab, setTab] = useState<Tab>('grain')
  const body = isBodyService(visit.service)
  const tabs = body ? TABS.filter(([id]) => id === 'grain' || id === 'marks') : TABS
  const waiting = visit.asked.spots.filter((s) => s.stillThere === 'ask').length
  const counts: Partial<Record<Tab, string>> = {
    marks: waiting > 0 ? `${waiting} ?` : `${visit.asked.spots.length || ''}`,
    lines: `${visit.notes.lines.length || ''}`,
    hair: `${Object.keys(visit.notes.hair).length + visit.notes.strays.length || ''}`,
  }
  return (
    <>
      <div className="read-tabs">
        <div className="switch tabs" role="group" aria-label="What to read">
          {tabs.map(([id, name]) => (
            <button key={id} aria-pressed={tab === id} onClick={() => setTab(id)}>
              {name}
              {counts[id] && <small> {counts[id]}</small>}
            </button>
          ))}
        </div>
        {visit.state === 'open' && (
          <Link className="strong deep" to={`/clients/${page.client.id}/plan`}>
            Plan
          </Link>
        )}
      </div>
      {tab === 'grain' && (body ? <BodyRead {...props} /> : <GrainTab visit={visit} />)}
      {tab === 'marks' && <MarksTab {...props} />}
      {tab === 'lines' && <LinesTab {...props} />}
      {tab === 'hair' && <HairTab {...props} />}
      {tab === 'maps' && <MapsTab {...props} />}
    </>
  )
}

function MarksTab({ visit }: StationProps) {
  const figures = useFigures()
  const save = useSaveAsked(visit.id)
  const [brush, setBrush] = useState(() => firstBrush(figures))
  const frozen = isFrozen(visit)
  const zones = useServiceZones(visit)
  const flow = useFlowLayer(visit)
  const lines = useKeptLines(visit)
  useHotkeys([['Z', () => !frozen && save.undo()]])
  const latest = useRef(save.change)
  latest.current = save.change
  const marking = useMarking(
    brush,
    useCallback((by) => latest.current(by), []),
    frozen,
  )
  useHeadLayers(
    useMemo(
      () => ({ flow, lines, spots: markSpots(figures, visit.asked.spots), ...marking }),
      [figures, flow, lines, visit.asked.spots, marking],
    ),
  )
  return (
    <>
      <div className="result-head">
        <h1>Marks</h1>
        <div className="line-tools">
          <button disabled={frozen || !save.canUndo} onClick={save.undo}>
            Undo <kbd>Z</kbd>
          </button>
        </div>
      </div>
      {save.error && (
        <p role="alert" className="problem">
          {save.error.message}
        </p>
      )}
      <div className="tab-body" tabIndex={0} role="region" aria-label="Marks">
        <MarksPanel
          spots={visit.asked.spots}
          frozen={frozen}
          brush={brush}
          setBrush={setBrush}
          zones={zones}
          change={save.change}
        />
      </div>
    </>
  )
}
