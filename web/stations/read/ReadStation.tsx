/** Read: the grain of the head, its marks, the lines to keep, the kinds of hair, and the maps of other visits. */
import { useCallback, useMemo, useRef, useState, type ReactNode } from 'react'
import { useNavigate } from 'react-router'
import { Text } from '@mantine/core'
import { arrivalBy } from '../../../core/ahead/index.ts'
import { dateWords } from '../../../core/time/index.ts'
import { isBodySitting } from '../../../core/services/index.ts'
import { useSaveAsked } from '../../api/visitWrites.ts'
import { firstBrush, MarksPanel, markSpots, useMarking } from '../../marks/MarksPanel.tsx'
import { useDrawn } from '../../marks/useOutlines.ts'
import { useFigures } from '../../state/figures.ts'
import { useMapLayers } from './useMapLayers.ts'
import { Act, KeyButton } from '../../ui/Act.tsx'
import { PanelHead, Problem } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'
import { StageActs } from '../../ui/Stage.tsx'
import { StationTabs, useTab } from '../StationTabs.tsx'
import { isFrozen, useFlowLayer, useStrokedZones, type StationProps } from '../useStation.ts'
import { AreasTab } from './AreasTab.tsx'
import { BodyRead } from './BodyRead.tsx'
import { GrainTab } from './GrainTab.tsx'
import { HairTab } from './HairTab.tsx'
import { LinesTab } from './LinesTab.tsx'
import { MapsTab } from './MapsTab.tsx'

const TABS = [
  ['grain', 'Grain'],
  ['marks', 'Marks'],
  ['lines', 'Lines'],
  ['areas', 'Areas'],
  ['hair', 'Hair'],
  ['maps', 'Maps'],
] as const
type Tab = (typeof TABS)[number][0]

/** What every tab of Read shows besides its own: the choice among them, and the way on. */
export interface ReadFrame {
  readonly tabs: ReactNode
  readonly onward: ReactNode
}

export function ReadStation(props: StationProps) {
  const { page, visit } = props
  const navigate = useNavigate()
  const figures = useFigures()
  const body = isBodySitting(visit.jobs)
  const tabs = body ? TABS.filter(([id]) => id === 'grain' || id === 'marks') : TABS
  const [tab, setTab] = useTab<Tab>(tabs, 'grain')
  const waiting = visit.asked.spots.filter((s) => s.stillThere === 'ask').length
  const counts: Partial<Record<Tab, string>> = {
    marks: waiting > 0 ? `${waiting} ?` : `${visit.asked.spots.length || ''}`,
    lines: `${visit.notes.lines.length || ''}`,
    areas: `${visit.notes.outlines?.length || ''}`,
    hair: `${Object.keys(visit.notes.hair).length + visit.notes.strays.length || ''}`,
  }
  const { tide } = page
  const now = arrivalBy(figures, tide.curve, tide.hairWords === 'Fuzz', Date.now())
  const short = visit.state === 'open' && visit.notes.lengthMm === undefined && now?.tooShort
  const frame: ReadFrame = {
    tabs: (
      <>
        <StationTabs
          label="What to read"
          tabs={tabs}
          tab={tab}
          onTab={setTab}
          after={(id) => counts[id] && ` ${counts[id]}`}
        />
        {short && (
          <Text size="sm" c="brass.7">
            By the tide line hair is about {now.nowMm.toFixed(1)} mm: too short to feel its way
            {now.readableFromMs ? `, from ${dateWords(now.readableFromMs)} on it can be read` : ''}.
          </Text>
        )}
      </>
    ),
    onward: visit.state === 'open' && (
      <KeyButton
        k="on-to-plan"
        variant="strong"
        onAct={() => void navigate(`/clients/${page.client.id}/plan`)}
      >
        Plan
      </KeyButton>
    ),
  }
  const at = { ...props, frame }
  if (tab === 'marks') return <MarksTab {...at} />
  if (tab === 'lines') return <LinesTab {...at} />
  if (tab === 'areas') return <AreasTab {...at} />
  if (tab === 'hair') return <HairTab {...at} />
  if (tab === 'maps') return <MapsTab {...at} />
  return body ? <BodyRead {...at} /> : <GrainTab visit={visit} frame={frame} />
}

function MarksTab({ visit, frame }: StationProps & { frame: ReadFrame }) {
  const figures = useFigures()
  const save = useSaveAsked(visit.id)
  const [brush, setBrush] = useState(() => firstBrush(figures))
  const frozen = isFrozen(visit)
  const zones = useStrokedZones(visit)
  const flow = useFlowLayer(visit)
  const lines = useDrawn(visit)
  const latest = useRef(save.change)
  latest.current = save.change
  const marking = useMarking(
    brush,
    useCallback((by) => latest.current(by), []),
    frozen,
  )
  useMapLayers(
    visit,
    useMemo(
      () => ({ flow, lines, spots: markSpots(figures, visit.asked.spots), ...marking }),
      [figures, flow, lines, visit.asked.spots, marking],
    ),
  )
  return (
    <>
      <StageActs label="Marks">
        <Act k="undo" side="right" disabled={frozen || !save.canUndo} onAct={save.undo}>
          Undo
        </Act>
      </StageActs>
      <PanelHead title="Marks">{frame.onward}</PanelHead>
      {frame.tabs}
      <Problem>{save.error?.message}</Problem>
      <Scroll label="Marks">
        <MarksPanel
          spots={visit.asked.spots}
          frozen={frozen}
          brush={brush}
          setBrush={setBrush}
          zones={zones}
          change={save.change}
        />
      </Scroll>
    </>
  )
}
