/** Ask: who, what they want, skin and hair, what stands in the way; the result at once, with reasons. */
import { useMemo, useState } from 'react'
import type { ZoneId } from '../../../core/head/zones.ts'
import { SPOT_WORDS, type SpotKind } from '../../../core/screening/rules.ts'
import { type Spot } from '../../../core/screening/screen.ts'
import { useSaveAsked } from '../../api/queries.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { newId } from '../../state/words.ts'
import {
  isFrozen,
  useFlowLayer,
  useScreening,
  useServiceZones,
  type StationProps,
} from '../useStation.ts'
import { ClientDetails } from './ClientDetails.tsx'
import { Marks } from './Marks.tsx'
import { Questions } from './Questions.tsx'
import { Result } from './Result.tsx'
import { Skin } from './Skin.tsx'

type Tab = 'questions' | 'skin' | 'marks' | 'person'
const TABS: readonly (readonly [Tab, string])[] = [
  ['questions', 'Questions'],
  ['skin', 'Skin and hair'],
  ['marks', 'Marks'],
  ['person', 'Person'],
]

export function AskStation(props: StationProps) {
  const { page, visit, house } = props
  const frozen = isFrozen(visit)
  const [tab, setTab] = useState<Tab>('questions')
  const [kind, setKind] = useState<SpotKind>('mole')
  const [radius, setRadius] = useState(4)
  const save = useSaveAsked(visit.id)
  const screening = useScreening(visit, house)
  const flow = useFlowLayer(visit)
  const { asked } = visit
  const { change } = save

  const head = useHead()
  const zones = useServiceZones(visit)
  const place = (at: { zoneId: ZoneId; point: Spot['point']; normal: Spot['normal'] }) => {
    const { zoneId, point, normal } = at
    change((now) => ({
      spots: [...now.spots, { id: newId(), kind, zoneId, point, normal, radiusMm: radius }],
    }))
  }
  const placing = tab === 'marks' && !frozen
  const layers = useMemo(
    () => ({
      flow,
      tints: screening.leaveOutZones.map((zoneId) => ({ zoneId, colour: '#BF4E36', opacity: 0.3 })),
      spots: asked.spots.map((s) => ({ ...s, name: SPOT_WORDS[s.kind] })),
      ...(placing && {
        onTap: (hit: Hit) => place(hit),
      }),
    }),
    // `place` reads what is shown when it is called.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [flow, screening, asked, placing, kind, radius],
  )
  useHeadLayers(layers)

  return (
    <>
      <Result {...props} />
      <div className="switch tabs" role="group" aria-label="What to ask">
        {TABS.map(([id, name]) => (
          <button key={id} aria-pressed={tab === id} onClick={() => setTab(id)}>
            {name}
            {id === 'questions' && screening.unanswered > 0 && (
              <small> {screening.unanswered}</small>
            )}
            {id === 'marks' && asked.spots.length > 0 && <small> {asked.spots.length}</small>}
          </button>
        ))}
      </div>
      {save.error && (
        <p role="alert" className="problem">
          {save.error.message}
        </p>
      )}
      <div
        className="tab-body"
        tabIndex={0}
        role="region"
        aria-label={TABS.find((t) => t[0] === tab)![1]}
      >
        {tab === 'questions' && (
          <Questions asked={asked} frozen={frozen} onChange={change} visit={visit} />
        )}
        {tab === 'skin' && <Skin {...props} frozen={frozen} />}
        {tab === 'marks' && (
          <Marks
            spots={asked.spots}
            frozen={frozen}
            kind={kind}
            setKind={setKind}
            radius={radius}
            setRadius={setRadius}
            zones={zones}
            onPlace={(zoneId) => {
              const centre = head.data?.zoneById.get(zoneId)?.centre
              if (centre) place({ zoneId, ...centre })
            }}
            onChange={(spots) => change(() => ({ spots }))}
          />
        )}
        {tab === 'person' && <ClientDetails client={page.client} />}
      </div>
    </>
  )
}
