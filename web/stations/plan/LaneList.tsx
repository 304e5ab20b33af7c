/** The lanes in working order. */
import { Fragment } from 'react'
import { stanceShort, type Lane, type Plan } from '../../../core/plan/index.ts'
import { SERVICES } from '../../../core/services/index.ts'
import { RelationMark } from './RelationMark.tsx'

export function LaneList({
  plan,
  chosen,
  onShow,
  onUnskip,
  children,
}: {
  plan: Plan
  chosen: string | undefined
  onShow: (lane: Lane) => void
  onUnskip?: ((id: string) => void) | undefined
  /** Shown under the chosen lane. */
  children?: React.ReactNode
}) {
  const { posture } = SERVICES[plan.service]
  const byId = new Map(plan.lanes.map((l) => [l.id, l]))
  const strokes = plan.steps.filter((s) => s.kind === 'stroke')
  let pass = 0
  if (plan.lanes.length === 0) {
    return <p>This plan was made before lanes: its steps are at the Chair.</p>
  }
  return (
    <table className="list tight pick">
      <thead>
        <tr>
          <th scope="col">In this order</th>
          <th scope="col">Stroke</th>
          <th scope="col" className="num">
            Load
          </th>
          <th scope="col" className="num">
            s
          </th>
          <th scope="col">Stand</th>
        </tr>
      </thead>
      <tbody>
        {strokes.map((s, i) => {
          const lane = s.laneId === undefined ? undefined : byId.get(s.laneId)
          if (!lane) return null
          const head = lane.pass > pass && plan.lanes.some((l) => l.pass > 1)
          pass = Math.max(pass, lane.pass)
          return (
            <Fragment key={s.id}>
              {head && (
                <tr className="pass-head">
                  <td colSpan={5}>Pass {lane.pass}</td>
                </tr>
              )}
              <tr className={lane.id === chosen ? 'chosen' : ''} onClick={() => onShow(lane)}>
                <td>
                  <button className="row-button" aria-pressed={lane.id === chosen}>
                    <span className="lane-number" aria-hidden>
                      {i + 1}
                    </span>{' '}
                    {s.title}
                    {lane.edited && <small> by hand</small>}
                    {lane.grain === 'guess' && <small> a guess: felt first</small>}
                    {lane.grain === 'unsure' && <small> not surely read: feel first</small>}
                  </button>
                </td>
                <td className="passes">
                  <RelationMark relation={lane.relation} />
                </td>
                <td className="num">{lane.load.toFixed(1)}</td>
                <td className="num">{Math.round(s.minutes * 60)}</td>
                <td>{stanceShort(lane.stance.hour, posture)}</td>
              </tr>
              {lane.id === chosen && children && (
                <tr className="lane-more">
                  <td colSpan={5}>{children}</td>
                </tr>
              )}
            </Fragment>
          )
        })}
        {plan.leftOut.map((z) =>
          z.skipped ? (
            <tr key={z.skipped.laneId} className="left-out">
              <td colSpan={4}>
                {z.name}, pass {z.skipped.pass}: skipped by hand
              </td>
              <td>
                {onUnskip && (
                  <button className="link" onClick={() => onUnskip(z.skipped!.laneId)}>
                    Put back
                  </button>
                )}
              </td>
            </tr>
          ) : (
            <tr key={z.zoneId} className="left-out">
              <td>{z.name}</td>
              <td colSpan={4}>{z.reason}</td>
            </tr>
          ),
        )}
      </tbody>
    </table>
  )
}
