/** Looks at the skin after a service, moment by moment: redness, spots in their places, how it feels. */
import { MomentField } from '../../ui/DateField.tsx'
import { Act } from '../../ui/Act.tsx'
import { named, PickOne } from '../../ui/PickOne.tsx'
import { StageActs } from '../../ui/Stage.tsx'
import { Words } from '../../ui/Words.tsx'
import { Problem } from '../../ui/Panel.tsx'
import { Button, Group, Text } from '@mantine/core'
import { capital } from '../../../core/words.ts'
import { ON_SKIN, REDNESS_COLOURS } from '../../../core/palette.ts'
import {
  ANSWER_SOURCES,
  isFollowed,
  SPOT_KINDS,
  type AnswerSource,
  type SkinAnswer,
  type SkinSpot,
  type SpotKind,
  USUAL_MOMENTS,
  type Moment,
  momentAt,
  momentHasCome,
  momentHours,
  momentOpensMs,
  momentWords,
  sameSpot,
  withoutSpot,
  withSpot,
  withZone,
} from '../../../core/looks/index.ts'
import { SKIN_SPOT_WORDS } from '../../../core/formats/index.ts'
import type { ZoneId } from '../../../core/zones/index.ts'
import { HOUR_MS, whenWords } from '../../../core/time/index.ts'
import { useFigures } from '../../state/figures.ts'
import dayjs from 'dayjs'
import { useMemo, useState } from 'react'
import { useHistory } from '../../api/queries.ts'
import { useHead, type Hit } from '../../head/loadHead.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { newId } from '../../state/words.ts'
import { useServiceZones, type StationProps } from '../useStation.ts'
import { Alarm } from './Alarm.tsx'
import { Feel } from './Feel.tsx'
import { Grades, MarkHelp, SpotSign } from './Legend.tsx'
import { LinkOut } from './LinkOut.tsx'
import { SkinRows } from './SkinRows.tsx'
import { useLook } from './useLook.ts'

type TapMeans = 'redness' | SpotKind

export function Looks(props: StationProps & { endedAtMs: number }) {
  const figures = useFigures()
  const { page, visit, endedAtMs } = props
  const [moment, setMoment] = useState<Moment>(() => momentAt(figures, endedAtMs, Date.now()))
  const [means, setMeans] = useState<TapMeans>('redness')
  const [asking, setAsking] = useState(false)
  const looking = useLook(visit, moment)
  const { look, answered } = looking
  const serviceZones = useServiceZones(visit)
  // What was left out is looked at all the same.
  const worked = useMemo(
    () =>
      visit.lookAt.length > 0 ? serviceZones.filter((z) => visit.lookAt.includes(z)) : serviceZones,
    [serviceZones, visit.lookAt],
  )
  const head = useHead()
  const earlier = useEarlierSpots(page.client.id, visit.id, endedAtMs, moment, visit.answers)
  const early = !momentHasCome(figures, endedAtMs, moment, Date.now())

  const onTap = (hit: Hit) => {
    if (early || !(worked as string[]).includes(hit.zoneId)) return
    if (means === 'redness') {
      looking.change((now) => {
        const grade = now.zones.find((z) => z.zoneId === hit.zoneId)?.redness ?? 0
        return withZone(now, hit.zoneId, { redness: (grade + 1) % 5 })
      })
      return
    }
    const place = { zoneId: hit.zoneId, point: hit.point, normal: hit.normal }
    looking.change((now) => {
      const here = sameSpot(place, now.spots)
      if (here) return withoutSpot(now, here)
      const before = sameSpot(place, earlier)
      // The same spot again keeps its place, so that it can be followed.
      const spot: SkinSpot = before
        ? { ...before, id: newId(), kind: means, again: before.id }
        : { id: newId(), kind: means, ...place }
      return withSpot(now, spot)
    })
  }
  const layers = useMemo(
    () => ({
      tints: worked.map((zoneId) => {
        const redness = look.zones.find((z) => z.zoneId === zoneId)?.redness ?? 0
        return redness > 0
          ? { zoneId, colour: REDNESS_COLOURS[redness]!, opacity: 0.75 }
          : { zoneId, colour: ON_SKIN.water, opacity: 0.16 }
      }),
      labels: look.zones.flatMap((z) => {
        const record = head.data?.zoneById.get(z.zoneId as ZoneId)
        const tapped = look.spots.filter((s) => s.zoneId === z.zoneId && !isFollowed(s.kind)).length
        const counted = z.bumps + (z.pustules ?? 0) - tapped
        const text = [z.redness > 0 ? String(z.redness) : '', counted > 0 ? `${counted}•` : '']
          .filter(Boolean)
          .join(' ')
        return record && text ? [{ id: z.zoneId, point: record.centre.point, text }] : []
      }),
      // What happened at the chair, where nothing is written of this moment yet.
      spots: Object.keys({ ...visit.atChair.redness, ...visit.atChair.leftOut }).flatMap(
        (zoneId) => {
          const record = head.data?.zoneById.get(zoneId as ZoneId)
          const said = look.zones.some((z) => z.zoneId === zoneId && z.redness > 0)
          const red = visit.atChair.redness[zoneId]
          return record && !said
            ? [
                {
                  id: `chair-${zoneId}`,
                  ...record.centre,
                  radiusMm: 7,
                  name: red === undefined ? 'left out' : `red at the chair: ${red}`,
                  light: true,
                },
              ]
            : []
        },
      ),
      marked: [
        ...earlier
          .filter((s) => !look.spots.some((now) => now.again === s.id))
          .map((s) => ({ ...s, earlier: true })),
        ...look.spots,
      ],
      onTap,
    }),
    // The tap handler is made anew with what it reads.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [look, worked, head.data, moment, means, earlier, visit.atChair],
  )
  useHeadLayers(layers)
  const own = visit.answers
    .map((a) => a.moment)
    .filter((m) => !(USUAL_MOMENTS as readonly string[]).includes(m))
    .sort((a, b) => momentHours(figures, a) - momentHours(figures, b))
  const moments: Moment[] = [...USUAL_MOMENTS, ...own]
  if (!moments.includes(moment)) moments.push(moment)
  return (
    <>
      <h1 className="hidden">How it went</h1>
      <StageActs label="The look">
        <Act k="look-undo" side="right" disabled={!looking.canUndo} onAct={looking.undo}>
          Undo
        </Act>
      </StageActs>
      <Alarm {...props} />
      <Group gap="xs">
        <Words
          label="When"
          wraps
          data={moments.map((m) => ({
            value: m,
            label: `${momentWords(m)}${visit.answers.some((a) => a.moment === m) ? ' ✓' : ''}`,
          }))}
          value={moment}
          onChange={setMoment}
        />
        <OtherMoment endedAtMs={endedAtMs} onMoment={setMoment} />
      </Group>
      <Group justify="space-between" gap="sm">
        {answered ? (
          <Group gap="xs" flex={1}>
            <PickOne
              aria-label="Who said it"
              w={150}
              data={named(ANSWER_SOURCES, (v) => SOURCE_WORDS[v])}
              value={look.source}
              onChange={(source) => looking.change(() => ({ source }))}
            />
            {look.zones.some((z) => z.redness > 0 || z.bumps > 0)
              ? 'Not marked: clear.'
              : 'All clear.'}
          </Group>
        ) : (
          <Text size="sm" c="dimmed" flex={1}>
            {early
              ? `This moment has not come: it may be answered from ${whenWords(momentOpensMs(figures, endedAtMs, moment))} on.`
              : 'Not answered, which is not clear: tap zones on the head, or:'}
          </Text>
        )}
        {answered && (
          <Button variant="bare" size="sm" onClick={looking.takeAway}>
            Take away
          </Button>
        )}
        <Button size="sm" aria-expanded={asking} onClick={() => setAsking(!asking)}>
          Ask the client
        </Button>
        {!answered && !early && (
          <Button variant="strong" onClick={() => looking.change(() => ({}))}>
            All clear
          </Button>
        )}
      </Group>
      {asking && <LinkOut {...props} />}
      {looking.error && <Problem>{looking.error.message}</Problem>}
      <Words
        label="A tap on the head means"
        wraps
        data={(['redness', ...SPOT_KINDS] as const).map((k) => ({
          value: k,
          label: (
            <>
              {k !== 'redness' && <SpotSign kind={k} />}
              {k === 'redness'
                ? 'Redness'
                : k === 'dark'
                  ? 'Dark mark'
                  : capital(SKIN_SPOT_WORDS[k])}
            </>
          ),
        }))}
        value={means}
        onChange={setMeans}
      />
      {(page.client.skin.tone ?? 1) >= 4 && (
        <Text size="sm">
          On this skin redness shows darker or violet beside the zone: look for that, and feel for
          warmth.
        </Text>
      )}
      {means === 'redness' ? <Grades /> : <MarkHelp means={means} earlier={earlier.length} />}
      <Feel looking={looking} visit={visit} early={early} />
      <SkinRows zones={worked} looking={looking} atChair={visit.atChair} early={early} />
    </>
  )
}

const SOURCE_WORDS: Record<AnswerSource, string> = {
  seen: 'seen here',
  phone: 'by telephone',
  client: 'by the client',
}

/** A look at any other time. */
function OtherMoment({
  endedAtMs,
  onMoment,
}: {
  endedAtMs: number
  onMoment: (m: Moment) => void
}) {
  const figures = useFigures()
  const [open, setOpen] = useState(false)
  const [at, setAt] = useState(() => Date.now())
  if (!open)
    return (
      <Button size="sm" onClick={() => setOpen(true)}>
        Other …
      </Button>
    )
  const look = () => {
    const hours = Math.round((at - endedAtMs) / HOUR_MS)
    if (hours < 0 || at > Date.now()) return
    setOpen(false)
    const usual = USUAL_MOMENTS.find((m) => momentHours(figures, m) === hours)
    onMoment(usual ?? `h${Math.min(9999, hours)}`)
  }
  return (
    <Group gap="xs" align="flex-end">
      <MomentField
        label="When was it looked at?"
        value={at}
        minDate={dayjs(endedAtMs).format('YYYY-MM-DD')}
        maxDate={dayjs().format('YYYY-MM-DD')}
        onChange={setAt}
      />
      <Button size="sm" disabled={at < endedAtMs || at > Date.now()} onClick={look}>
        Look
      </Button>
    </Group>
  )
}

const NONE: readonly SkinSpot[] = []

/** Spots of the look before this one: at an earlier moment of this visit, else of the visits before. */
function useEarlierSpots(
  clientId: string,
  visitId: string,
  endedAtMs: number,
  moment: Moment,
  answers: readonly SkinAnswer[],
): readonly SkinSpot[] {
  const figures = useFigures()
  const history = useHistory(clientId)
  return useMemo(() => {
    const at = endedAtMs + momentHours(figures, moment) * HOUR_MS
    const looks = [
      ...(history.data?.looks.filter((l) => l.visitId !== visitId).map((l) => l.answer) ?? []),
      ...answers.filter((a) => a.moment !== moment),
    ].filter((a) => a.atMs < at && (a.spots?.length ?? 0) > 0)
    const last = looks.reduce<SkinAnswer | undefined>(
      (best, a) => (!best || a.atMs > best.atMs ? a : best),
      undefined,
    )
    return last?.spots ?? NONE
  }, [figures, history.data, visitId, endedAtMs, moment, answers])
}
