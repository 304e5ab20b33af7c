/** The plan card: lanes numbered on the flat views, the steps, the cautions, the kit to lay out. One page. */
import { isBody } from '../../core/zones/index.ts'
import { useEffect, useState } from 'react'
import type { VisitPage } from '../../contract/types.ts'
import { bodyOutline, sheetOf } from '../../core/body/index.ts'
import {
  dot,
  FLAT_HALF,
  projectPoint,
  type Vec3,
  viewAxes,
  VIEWS,
  type ViewId,
} from '../../core/head/index.ts'
import { pictureHour } from '../../core/telling/index.ts'
import type { ZoneId } from '../../core/zones/index.ts'
import { stanceShort, type Lane, type Plan } from '../../core/plan/index.ts'
import { CLOSING_SENTENCE } from '../../core/screening/index.ts'
import { SERVICES, type ServiceId, isBodySitting, zonesOfJobs } from '../../core/services/index.ts'
import { dateWords } from '../../core/time/index.ts'
import { useHead, type LoadedHead } from '../head/loadHead.ts'
import { Arrow } from '../head/Overlay.tsx'
import { drawOn, flatViews } from '../stations/read/mapPicture.ts'
import { FlatPicture, type FlatLabel } from './FlatPicture.tsx'

const SIGN = { with: '→', across: '⇸', against: '⇻' } as const
/** Length of a lane's arrow on paper, mm at most. */
const ARROW_MM = 20
/** From so many lanes on they stand in three columns. */
const MANY = 46

/** Strokes of the plan, numbered as they follow each other. */
function numbered(plan: Plan): { number: number; lane: Lane; title: string; seconds: number }[] {
  const byId = new Map(plan.lanes.map((l) => [l.id, l]))
  return plan.steps
    .filter((s) => s.kind === 'stroke' && s.laneId !== undefined)
    .flatMap((s, i) => {
      const lane = byId.get(s.laneId!)
      return lane
        ? [{ number: i + 1, lane, title: s.title, seconds: Math.round(s.minutes * 60) }]
        : []
    })
}

export function PlanCard({
  visit,
  plan,
  initials,
}: {
  visit: VisitPage
  plan: Plan
  initials: string
}) {
  const head = useHead()
  const lanes = numbered(plan)
  const between = plan.steps.filter((s) => s.kind !== 'stroke')
  const avoid = [...new Set(plan.zones.flatMap((z) => z.avoid))]
  const cares = plan.screening.findings.filter((f) => f.severity !== 'note')
  return (
    <article className="card-sheet card-plan" aria-label="Plan card">
      <header>
        <h1>Plan card</h1>
        <p>
          {initials}. · {SERVICES[plan.service].name} · {dateWords(visit.slotAtMs ?? Date.now())} ·{' '}
          {plan.style} · {Math.round(plan.totalMinutes)} min
        </p>
      </header>
      {isBodySitting(plan.jobs) ? (
        <BodyPicture zones={zonesOfJobs(plan.jobs).filter(isBody)} lanes={lanes} />
      ) : head.data ? (
        <Views head={head.data} service={plan.service} lanes={lanes} />
      ) : (
        <p role="status">The card is being drawn …</p>
      )}
      <div className={lanes.length > MANY ? 'card-steps many' : 'card-steps'}>
        <table>
          <tbody>
            {lanes.map(({ number, lane, title, seconds }) => (
              <tr key={lane.id}>
                <td>{number}</td>
                <td>{title.replace(', client’s', ',').replace(", client's", ',')}</td>
                <td>
                  {SIGN[lane.relation]} {lane.relation}
                  {lane.grain === 'guess' && ' ?'}
                </td>
                <td>{towardShort(plan, lane)}</td>
                <td>{lane.bladeAngleDeg}°</td>
                <td>{stanceShort(lane.stance.hour, SERVICES[plan.service].posture)}</td>
                <td>{seconds} s</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="card-line">
        <b>Before, between, after:</b>{' '}
        {between
          .map(
            (s) =>
              `${s.title} ${s.minutes < 1 ? `${Math.round(s.minutes * 60)} s` : `${s.minutes} min`}`,
          )
          .join(' · ')}
      </p>
      <p className="card-line">
        <b>Leave out:</b> {[...plan.leftOut.map((z) => z.name), ...avoid].join(' · ') || 'nothing'}
        {cares.length > 0 && (
          <>
            {' '}
            <b>Take care:</b> {cares.map((f) => f.reason).join(' · ')}
          </>
        )}
      </p>
      <p className="card-line">
        <b>Lay out:</b> {plan.kit.map((k) => `${k.count} × ${k.name}`).join(' · ')}
      </p>
      <footer>
        {lanes.some((l) => l.lane.grain === 'guess') &&
          '? means that nobody has read the grain there: feel it before the stroke. '}
        No pressure. Blade at{' '}
        {[...new Set(lanes.map((l) => `${l.lane.bladeAngleDeg}°`))].join(', ')} to the skin. → with,
        ⇸ across, ⇻ against the grain; then which way on the skin, and the hour in the picture named
        behind it, 12 at its top; then where to stand, with the hour round the chair, 12 at the
        client’s head. Left and right are the client’s. {CLOSING_SENTENCE}
      </footer>
    </article>
  )
}

/** The arrow of a lane as the card draws it. */
const arrowOn = (lane: Lane) => ({
  zoneId: lane.zoneId,
  point: lane.point,
  normal: lane.normal,
  direction: lane.stroke,
  lengthMm: Math.min(ARROW_MM, Math.max(8, lane.lengthMm * 0.4)),
})

/** "down and back, 7 in the left view": the hour in the view that shows the lane best. */
function towardShort(plan: Plan, lane: Lane): string {
  const toward = plan.presses?.find((p) => p.id === lane.stepId)?.toward ?? lane.toward
  const words = toward?.split(',')[0] ?? ''
  const [from, to] = [-0.5, 0.5].map(
    (t) => lane.point.map((x, k) => x + 10 * t * lane.stroke[k]!) as unknown as Vec3,
  ) as [Vec3, Vec3]
  const facing = SERVICES[plan.service].views
    .map((id) => ({ id, axes: viewAxes(VIEWS[id].yawDeg, VIEWS[id].pitchDeg) }))
    .map((v) => ({ ...v, seen: dot(v.axes.toward, lane.normal) }))
    .sort((a, b) => b.seen - a.seen)[0]
  const hour = facing && facing.seen > LEAST_FACING && pictureHour(facing.axes, [from, to])
  return hour ? `${words}, ${hour} in ${VIEW_SHORT[facing.id]}` : words
}

/** A lane is drawn in the views that it faces at least so much. */
const LEAST_FACING = 0.2
const VIEW_SHORT: Readonly<Record<ViewId, string>> = {
  front: 'front',
  left: 'left',
  right: 'right',
  underChin: 'under chin',
  crown: 'crown',
  nape: 'nape',
}

function Views({
  head,
  service,
  lanes,
}: {
  head: LoadedHead
  service: ServiceId
  lanes: ReturnType<typeof numbered>
}) {
  const [drawn, setDrawn] = useState<
    {
      id: ViewId
      name: string
      parts: ReturnType<typeof drawOn>[number]['parts']
      labels: FlatLabel[]
    }[]
  >()
  useEffect(() => {
    let wanted = true
    void flatViews().then((flat) => {
      const first = lanes.filter((l) => l.lane.pass === 1)
      const drawing = {
        arrows: first.map(({ lane }) => ({ ...arrowOn(lane), unsure: lane.grain === 'guess' })),
        signs: [],
        lines: [],
      }
      const views = drawOn(head, flat, drawing, SERVICES[service].views).map((v) => {
        const axes = viewAxes(VIEWS[v.id].yawDeg, VIEWS[v.id].pitchDeg)
        const labels = first.flatMap(({ lane, number }): FlatLabel[] => {
          const n = lane.normal
          const facing = axes.toward[0] * n[0] + axes.toward[1] * n[1] + axes.toward[2] * n[2]
          if (facing < LEAST_FACING || !head.inSight(axes, lane.point)) return []
          const [x, y] = projectPoint(axes, lane.point)
          return [{ x: x + FLAT_HALF.width, y: FLAT_HALF.height - y, text: String(number) }]
        })
        return { ...v, labels }
      })
      if (wanted) setDrawn(views)
    })
    return () => {
      wanted = false
    }
    // Lanes are made anew with every render; the plan behind them is what counts.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [head, service, lanes.map((l) => l.lane.id).join()])
  if (!drawn) return <p role="status">The card is being drawn …</p>
  return (
    <div className="card-views">
      {drawn.map((v) => (
        <figure key={v.id}>
          <FlatPicture parts={v.parts} labels={v.labels} />
          <figcaption>{v.name}</figcaption>
        </figure>
      ))}
    </div>
  )
}

function BodyPicture({
  zones,
  lanes,
}: {
  zones: readonly ZoneId[]
  lanes: ReturnType<typeof numbered>
}) {
  const { left, right, top, bottom } = sheetOf(zones)
  return (
    <svg
      className="flat-picture body-card"
      viewBox={`${left} ${-top} ${right - left} ${top - bottom}`}
      aria-hidden
    >
      {zones.map((id) => {
        const o = bodyOutline(id)
        let d = ''
        for (let i = 0; i < o.length; i += 2)
          d += `${i === 0 ? 'M' : 'L'}${o[i]!.toFixed(1)} ${(-o[i + 1]!).toFixed(1)}`
        return <path key={id} d={`${d}Z`} className="body-outline" />
      })}
      {lanes
        .filter((l) => l.lane.pass === 1)
        .map(({ lane, number }) => (
          <g key={lane.id}>
            <Arrow
              way={[-40, 40].map((t) => ({
                x: lane.point[0] + t * lane.stroke[0],
                y: -(lane.point[1] + t * lane.stroke[1]),
              }))}
              kind={lane.relation}
              width={4}
            />
            <text x={lane.point[0] + 16} y={-lane.point[1] + 12}>
              {number}
            </text>
          </g>
        ))}
    </svg>
  )
}
