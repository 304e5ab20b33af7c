/** Return: how the skin took it, when hair came back, when to meet again. */
import { useMemo, useRef, useState } from 'react'
import { Link } from 'react-router'
import { MOMENTS } from '../../../contract/schemas.ts'
import type { Moment, SkinAnswer } from '../../../contract/types.ts'
import { zoneName } from '../../../core/head/zoneFacts.ts'
import type { ZoneId } from '../../../core/head/zones.ts'
import { HOUR_MS } from '../../../core/time/dates.ts'
import { useSaveSkin } from '../../api/queries.ts'
import type { Hit } from '../../head/loadHead.ts'
import { useHead } from '../../head/loadHead.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useView } from '../../state/view.ts'
import { whenWords } from '../../state/words.ts'
import { REDNESS_COLOURS, REDNESS_WORDS } from '../../theme/redness.ts'
import { Hair } from './Hair.tsx'
import { Outlook } from './Outlook.tsx'
import { useServiceZones, type StationProps } from '../useStation.ts'

const MOMENT_WORDS: Record<Moment, string> = {
  now: 'Now',
  '1h': '1 h',
  '24h': '24 h',
  '48h': '48 h',
  '7d': '7 days',
}
const MOMENT_HOURS: Record<Moment, number> = { now: 0, '1h': 1, '24h': 24, '48h': 48, '7d': 168 }

type Zones = SkinAnswer['zones']

/** The moment that is due: the latest one that has come and has no answer, or the latest that has come. */
function dueMoment(endedAtMs: number, answers: readonly SkinAnswer[]): Moment {
  const hours = (Date.now() - endedAtMs) / HOUR_MS
  const come = MOMENTS.filter((m) => hours >= MOMENT_HOURS[m] * 0.9)
  const open = come.filter((m) => !answers.some((a) => a.moment === m))
  return open[open.length - 1] ?? come[come.length - 1] ?? 'now'
}

export function ReturnStation(props: StationProps) {
  const { page, visit } = props
  if (visit.endedAtMs === null) {
    return (
      <section className="zone-detail">
        <h1>Return</h1>
        <p className="lead">
          After the service: how the skin looked at once, after an hour, a day, two, a week; when
          hair was felt and seen. Then the next visit’s window.
        </p>
        <Outlook {...props} />
        <Link className="strong" to={`/clients/${page.client.id}/ask`}>
          To Ask
        </Link>
      </section>
    )
  }
  return <Answers {...props} endedAtMs={visit.endedAtMs} />
}

function Answers(props: StationProps & { endedAtMs: number }) {
  const { visit, endedAtMs } = props
  const [moment, setMoment] = useState<Moment>(() => dueMoment(endedAtMs, visit.answers))
  const [tab, setTab] = useState<'skin' | 'hair' | 'next'>('skin')
  const save = useSaveSkin(visit.id)
  const stored = visit.answers.find((a) => a.moment === moment)
  const [draft, setDraft] = useState<{ moment: Moment; zones: Zones }>()
  const zones = draft?.moment === moment ? draft.zones : (stored?.zones ?? [])
  const serviceZones = useServiceZones(visit)
  const head = useHead()
  const hours = (Date.now() - endedAtMs) / HOUR_MS
  const early = hours < MOMENT_HOURS[moment] * 0.5

  // Quick taps build on each other even before the screen has caught up.
  const latest = useRef(zones)
  latest.current = zones
  const put = (next: Zones) => {
    latest.current = next
    setDraft({ moment, zones: next })
    save.mutate({
      moment,
      // Kept as the time it speaks of: an answer given late still belongs to its moment.
      atMs: Math.round(Math.min(Date.now(), endedAtMs + MOMENT_HOURS[moment] * HOUR_MS)),
      zones: next.filter((z) => z.redness > 0 || z.bumps > 0),
    })
  }
  const setZone = (zoneId: string, change: { redness?: number; bumps?: number }) => {
    const now = latest.current
    const before = now.find((z) => z.zoneId === zoneId) ?? { zoneId, redness: 0, bumps: 0 }
    put([...now.filter((z) => z.zoneId !== zoneId), { ...before, ...change }])
  }
  const layers = useMemo(
    () => ({
      tints: serviceZones.map((zoneId) => {
        const redness = zones.find((z) => z.zoneId === zoneId)?.redness ?? 0
        return redness > 0
          ? { zoneId, colour: REDNESS_COLOURS[redness]!, opacity: 0.75 }
          : { zoneId, colour: '#7fc6c6', opacity: 0.16 }
      }),
      labels: zones.flatMap((z) => {
        const record = head.data?.zoneById.get(z.zoneId as ZoneId)
        const text = [z.redness > 0 ? String(z.redness) : '', z.bumps > 0 ? `${z.bumps}•` : '']
          .filter(Boolean)
          .join(' ')
        return record && text ? [{ id: z.zoneId, point: record.centre.point, text }] : []
      }),
      onTap: (hit: Hit) => {
        if (!(serviceZones as string[]).includes(hit.zoneId) || tab !== 'skin') return
        const now = latest.current.find((z) => z.zoneId === hit.zoneId)?.redness ?? 0
        setZone(hit.zoneId, { redness: (now + 1) % 5 })
      },
    }),
    // The tap handler is made anew with the zones it reads.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [zones, serviceZones, head.data, moment, tab],
  )
  useHeadLayers(layers)
  return (
    <>
      <div className="row-between">
        <h1>How it went</h1>
        <div className="switch" role="group" aria-label="What to look at">
          {(
            [
              ['skin', 'Skin'],
              ['hair', 'Hair'],
              ['next', 'Next visit'],
            ] as const
          ).map(([id, name]) => (
            <button key={id} aria-pressed={tab === id} onClick={() => setTab(id)}>
              {name}
            </button>
          ))}
        </div>
      </div>
      {tab === 'skin' && (
        <>
          <div className="switch" role="group" aria-label="When">
            {MOMENTS.map((m) => (
              <button key={m} aria-pressed={moment === m} onClick={() => setMoment(m)}>
                {MOMENT_WORDS[m]}
                {visit.answers.some((a) => a.moment === m) ? ' ✓' : ''}
              </button>
            ))}
          </div>
          <div className="row-between">
            <p className="soft grow">
              {stored
                ? `Answered; ${stored.zones.length === 0 ? 'all clear' : 'zones not marked were clear'}. Tap a zone on the head to step its redness.`
                : early
                  ? `This moment comes ${whenWords(endedAtMs + MOMENT_HOURS[moment] * HOUR_MS)}.`
                  : 'Not answered yet. Not answered is not clear: tap zones on the head, or say all clear.'}
            </p>
            {!stored && !early && (
              <button className="strong" onClick={() => put([])} disabled={save.isPending}>
                All clear
              </button>
            )}
          </div>
          {save.isError && (
            <p role="alert" className="problem">
              {save.error.message}
            </p>
          )}
          <Grades />
          <div className="scroll">
            <table className="list tight pick">
              <thead>
                <tr>
                  <th scope="col">Zone</th>
                  <th scope="col">Redness</th>
                  <th scope="col">Bumps</th>
                </tr>
              </thead>
              <tbody>
                {serviceZones.map((id) => (
                  <SkinRow
                    key={id}
                    id={id}
                    zone={zones.find((z) => z.zoneId === id)}
                    answered={stored !== undefined || draft?.moment === moment}
                    onChange={(c) => setZone(id, c)}
                  />
                ))}
              </tbody>
            </table>
          </div>
        </>
      )}
      {tab === 'hair' && <Hair {...props} />}
      {tab === 'next' && <Outlook {...props} />}
    </>
  )
}

function Grades() {
  return (
    <ul className="grades">
      {REDNESS_WORDS.map(([word, look], grade) => (
        <li key={word} title={look}>
          <i style={{ background: REDNESS_COLOURS[grade] }}>{grade}</i>
          {word}
        </li>
      ))}
    </ul>
  )
}

function SkinRow({
  id,
  zone,
  answered,
  onChange,
}: {
  id: ZoneId
  zone: Zones[number] | undefined
  answered: boolean
  onChange: (c: { redness?: number; bumps?: number }) => void
}) {
  const chosen = useView((s) => s.chosen)
  const bumps = zone?.bumps ?? 0
  // Not answered is not clear: then no figure is chosen.
  const redness = zone?.redness ?? (answered ? 0 : undefined)
  const name = zoneName(id)
  return (
    <tr className={chosen === id ? 'chosen' : ''}>
      <td>{name}</td>
      <td>
        <div className="grade-buttons" role="group" aria-label={`Redness, ${name}`}>
          {REDNESS_COLOURS.map((colour, grade) => (
            <button
              key={colour}
              aria-pressed={redness === grade}
              aria-label={`${grade}, ${REDNESS_WORDS[grade]![0]}`}
              title={REDNESS_WORDS[grade]![1]}
              style={
                redness === grade
                  ? { background: colour, color: grade >= 3 ? '#FBF8F2' : '#17323B' }
                  : undefined
              }
              onClick={() => onChange({ redness: grade })}
            >
              {grade}
            </button>
          ))}
        </div>
      </td>
      <td>
        <div className="stepper" role="group" aria-label={`Bumps, ${name}`}>
          <button
            aria-label="One fewer"
            disabled={bumps === 0}
            onClick={() => onChange({ bumps: bumps - 1 })}
          >
            −
          </button>
          <b>{bumps}</b>
          <button aria-label="One more" onClick={() => onChange({ bumps: bumps + 1 })}>
            +
          </button>
        </div>
      </td>
    </tr>
  )
}
