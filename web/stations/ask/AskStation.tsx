/** Ask: who, what they want, skin and hair, what stands in the way; the result at once, with reasons. */
import { ON_SKIN } from '../../../core/palette.ts'
import { concerns, RULES, withAge, type Asked } from '../../../core/screening/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useCallback, useMemo, useRef, useState } from 'react'
import type { HeadSpot } from '../../head/shared.ts'
import { useSaveAsked } from '../../api/visitWrites.ts'
import { firstBrush, MarksPanel, markSpots, useMarking } from '../../marks/MarksPanel.tsx'
import { todayIso } from '../../state/words.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { HomeWork } from '../HomeWork.tsx'
import { useGate } from '../useGate.ts'
import { StationTabs, useTab } from '../StationTabs.tsx'
import { isFrozen, useFlowLayer, useServiceZones, type StationProps } from '../useStation.ts'
import { ClientDetails } from './ClientDetails.tsx'
import { ConsentTab } from './ConsentTab.tsx'
import { MethodsTab } from './MethodsTab.tsx'
import css from './Ask.module.css'
import { Questions, Rest } from './Questions.tsx'
import { Result } from './Result.tsx'
import { Skin } from './Skin.tsx'
import { SignFoot } from './SignFoot.tsx'
import { Sitting } from './Sitting.tsx'
import { Tone } from './Tone.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { Scroll } from '../../ui/Scroll.tsx'

type Tab = 'sitting' | 'questions' | 'skin' | 'marks' | 'methods' | 'consent' | 'person'
const TABS: readonly (readonly [Tab, string])[] = [
  ['questions', 'Questions'],
  ['sitting', 'Sitting'],
  ['skin', 'Skin'],
  ['marks', 'Marks'],
  ['methods', 'Methods'],
  ['consent', 'Consent'],
  ['person', 'Person'],
]

export function AskStation(props: StationProps) {
  const figures = useFigures()
  const { page, visit, house } = props
  const frozen = isFrozen(visit)
  const [tab, setTab] = useTab(TABS, 'questions')
  const [brush, setBrush] = useState(() => firstBrush(figures))
  const save = useSaveAsked(visit.id)
  const { screening, findings } = useGate(props)
  // Also where what was signed does not hold: another text, an earlier visit, a guardian of somebody of age.
  const unsigned = findings.some((f) => f.about === 'consent')
  const flow = useFlowLayer(visit)
  const asked = useMemo(
    () => withAge(figures, visit.asked, page.client.bornOn, todayIso()),
    [figures, visit.asked, page.client.bornOn],
  )
  const { change } = save

  const zones = useServiceZones(visit)
  const asks = RULES.filter((r) => concerns(r, visit.jobs, house.rules))
  // The change reads what is shown when it is made, so the first one serves for good.
  const latest = useRef(change)
  latest.current = change
  const marks = useMarking(
    brush,
    useCallback((by) => latest.current(by), []),
    frozen,
  )
  const layers = useMemo(
    () => ({
      flow,
      tints: screening.leaveOutZones.map((zoneId) => ({
        zoneId,
        colour: ON_SKIN.coral,
        opacity: 0.3,
      })),
      spots: [...markSpots(figures, asked.spots), ...patchSpot(asked.patchTest)],
      ...(tab === 'marks' && marks),
    }),
    [figures, flow, screening, asked, tab, marks],
  )
  useHeadLayers(layers)

  return (
    <>
      <span data-bench="wide-panel" hidden />
      <Tone client={page.client} />
      {(!asked.consent || unsigned) && !frozen && (
        <SignFoot
          {...props}
          // Another person signs: their name and hand are their own.
          key={asked.answers['under-age']?.yes === true ? 'guardian' : 'client'}
          asked={asked}
          onChange={change}
        />
      )}
      <Result {...props} steady={tab === 'questions'} />
      <div className={css.tabs}>
        <StationTabs
          label="What to ask"
          tabs={TABS}
          tab={tab}
          onTab={setTab}
          after={(id) => {
            const many =
              id === 'questions'
                ? screening.unanswered + screening.toConfirm
                : id === 'sitting' && visit.jobs.length > 1
                  ? visit.jobs.length
                  : id === 'marks'
                    ? asked.spots.length
                    : 0
            return many > 0 && ` ${many}`
          }}
        />
        {tab === 'questions' && !frozen && <Rest asked={asked} asks={asks} onChange={change} />}
      </div>
      {tab === 'questions' ? (
        <Questions
          {...{ asked, frozen, visit, house }}
          bornOn={page.client.bornOn}
          onChange={change}
        />
      ) : (
        <Scroll label={TABS.find((t) => t[0] === tab)![1]}>
          {tab === 'sitting' && (
            <>
              <Sitting {...props} frozen={frozen} />
              <HomeWork {...props} />
            </>
          )}
          {tab === 'skin' && <Skin {...props} frozen={frozen} />}
          {tab === 'marks' && (
            <MarksPanel
              spots={asked.spots}
              frozen={frozen}
              brush={brush}
              setBrush={setBrush}
              zones={zones}
              change={change}
            />
          )}
          {tab === 'methods' && <MethodsTab {...props} />}
          {tab === 'consent' && (
            <ConsentTab {...props} asked={asked} frozen={frozen} onChange={change} />
          )}
          {tab === 'person' && <ClientDetails client={page.client} />}
        </Scroll>
      )}
      <Problem>{save.error?.message}</Problem>
    </>
  )
}

/** Size of a patch test, mm. */
const PATCH_MM = 8

/** Where the patch test is. */
function patchSpot(test: Asked['patchTest']): HeadSpot[] {
  if (!test?.point || !test.normal || test.result === 'calm') return []
  const { point, normal } = test
  return [{ id: 'patch-test', point, normal, radiusMm: PATCH_MM, name: 'patch test', light: true }]
}
