/** Two visits side by side: map, plan, what was done, how the skin took it, pictures; what differs on the head. */
import { PickOne } from '../../ui/PickOne.tsx'
import { Words } from '../../ui/Words.tsx'
import css from './Return.module.css'
import { Scroll } from '../../ui/Scroll.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { Group, Text, Skeleton } from '@mantine/core'
import { ON_SKIN } from '../../../core/palette.ts'
import { nearestView, type ViewId } from '../../../core/head/index.ts'
import { zoneName } from '../../../core/zones/index.ts'
import { isBodySitting } from '../../../core/services/index.ts'
import { dateWords } from '../../../core/time/index.ts'
import {
  differences,
  LAYERS,
  type Layer,
  type Two,
  FULL_COLOUR_AT,
  differenceWords,
} from '../../../core/history/index.ts'
import { useFigures } from '../../state/figures.ts'
import { useMemo, useState } from 'react'
import type { VisitPage } from '../../../contract/types.ts'
import { useVisit } from '../../api/queries.ts'
import { useHead } from '../../head/loadHead.ts'
import type { HeadLabel, ZoneTint } from '../../head/shared.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useView } from '../../state/view.ts'
import { useServiceZones, type StationProps } from '../useStation.ts'
import { FactsTwo } from './FactsTwo.tsx'
import { SkinPictures } from './SkinPictures.tsx'

const WORSE = ON_SKIN.coral
const BETTER = ON_SKIN.tide

export function ThenNow(props: StationProps) {
  const { page, visit } = props
  const others = page.visits.filter((v) => v.id !== visit.id && v.endedAtMs !== null)
  const before = others.find((v) => (v.endedAtMs ?? 0) < (visit.endedAtMs ?? Infinity)) ?? others[0]
  const [otherId, setOtherId] = useState<string>()
  const other = useVisit(otherId ?? before?.id)
  const [layer, setLayer] = useState<Layer>('redness')
  const view = useShownView()
  if (others.length === 0) {
    return (
      <>
        <h1>Then and now</h1>
        <Text size="sm" c="dimmed">
          There is no other finished visit to look at beside this one.
        </Text>
      </>
    )
  }
  return (
    <>
      <Group justify="space-between" gap="sm">
        <h1>Then and now</h1>
        <PickOne
          aria-label="Beside which visit"
          w={260}
          data={others.map((v) => ({
            value: v.id,
            label: `${dateWords(v.endedAtMs!)}${v.worstRedness === null ? '' : `, redness ${v.worstRedness}`}${v.routine ? `, ${v.routine}` : ''}`,
          }))}
          value={otherId ?? before?.id}
          onChange={setOtherId}
        />
      </Group>
      {other.isError && <Problem>{other.error.message}</Problem>}
      {other.isPending && <Skeleton h={200} />}
      {other.data && (
        <Scroll label="Two visits">
          <Difference then={other.data} now={visit} layer={layer} onLayer={setLayer} />
          {!isBodySitting(visit.jobs) && <SkinPictures then={other.data} now={visit} view={view} />}
          <FactsTwo then={other.data} now={visit} />
          <Text size="sm" c="dimmed">
            The tide line below chooses the visit on the right, the list above the one on the left;
            keys 1 to 6 turn all three heads.
          </Text>
        </Scroll>
      )}
    </>
  )
}

/** The pictures turn with the head: its named view, or the nearest. */
function useShownView(): ViewId {
  return useView((s) => s.named ?? nearestView(s.yawDeg, s.pitchDeg))
}

function Difference({
  then,
  now,
  layer,
  onLayer,
}: Two<VisitPage> & { layer: Layer; onLayer: (l: Layer) => void }) {
  const figures = useFigures()
  const zones = useServiceZones(now)
  const head = useHead()
  const found = useMemo(
    () => differences(figures, { then, now }, layer, zones, Date.now()),
    [figures, then, now, layer, zones],
  )
  useHeadLayers(
    useMemo(() => {
      const tints: ZoneTint[] = []
      const labels: HeadLabel[] = []
      for (const [zoneId, d] of found ?? []) {
        const share = Math.min(1, Math.abs(d) / FULL_COLOUR_AT[layer])
        if (share < 0.08) {
          tints.push({ zoneId, colour: ON_SKIN.water, opacity: 0.12 })
          continue
        }
        // A turned grain is neither better nor worse.
        const colour = layer === 'grain' ? ON_SKIN.brass : d > 0 ? WORSE : BETTER
        tints.push({ zoneId, colour, opacity: 0.2 + 0.6 * share })
        const record = head.data?.zoneById.get(zoneId)
        if (record)
          labels.push({ id: zoneId, point: record.centre.point, text: differenceWords(d, layer) })
      }
      return { tints, labels }
    }, [found, layer, head.data]),
  )
  const changed = [...(found ?? [])]
    .filter(([, d]) => Math.abs(d) / FULL_COLOUR_AT[layer] >= 0.08)
    .sort((a, b) => Math.abs(b[1]) - Math.abs(a[1]))
  return (
    <>
      <Group justify="space-between" gap="sm">
        <Words
          label="What differs on the head"
          data={(Object.keys(LAYERS) as Layer[]).map((l) => ({ value: l, label: LAYERS[l] }))}
          value={layer}
          onChange={onLayer}
        />
        <span className={css.key}>
          {layer === 'grain' ? (
            <>
              <i style={{ background: ON_SKIN.brass }} /> turned
            </>
          ) : (
            <>
              <i style={{ background: BETTER }} /> less now <i style={{ background: WORSE }} /> more
              now
            </>
          )}
        </span>
      </Group>
      <Text size="sm" c="dimmed">
        {found === undefined
          ? 'One of the two was not answered: not answered is not clear, so nothing is compared.'
          : changed.length === 0
            ? 'Nothing differs.'
            : changed
                .slice(0, 4)
                .map(([z, d]) => `${zoneName(z)} ${differenceWords(d, layer)}`)
                .join('; ') + (changed.length > 4 ? `; and ${changed.length - 4} more.` : '.')}
      </Text>
    </>
  )
}
