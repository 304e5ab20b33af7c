/** Plan: zone by zone, which way, how often, with what, where the hands go, what it costs and buys, and why. */
import { useHotkeys } from '@mantine/hooks'
import { useMemo, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { clockWords } from '../../../core/grain/clock.ts'
import { RELATION_WORDS } from '../../../core/grain/relation.ts'
import { directionOf } from '../../../core/head/frames.ts'
import { zoneName } from '../../../core/head/zoneFacts.ts'
import { MARK_WORDS } from '../../../core/house/constants.ts'
import type { Plan, PlanStep, Reason, ZonePlan } from '../../../core/plan/types.ts'
import { useSavePlan } from '../../api/queries.ts'
import { useHead } from '../../head/loadHead.ts'
import type { HeadArrow } from '../../head/shared.ts'
import { markSpots } from '../../marks/MarksPanel.tsx'
import { useKeptLines } from '../../marks/useLinePaths.ts'
import { useHeadLayers } from '../../state/layers.ts'
import { useView, viewOf } from '../../state/view.ts'
import { hoursWords, percentWords, momentWords } from '../../state/words.ts'
import { useChosenInView } from '../useChosenInView.ts'
import { useFlowLayer, type StationProps } from '../useStation.ts'
import { RelationMark } from './RelationMark.tsx'
import { usePlan } from './usePlan.ts'

export function PlanStation(props: StationProps) {
  const { page, visit } = props
  const view = usePlan(props)
  const { plan } = view
  const save = useSavePlan(visit.id)
  const navigate = useNavigate()
  const head = useHead()
  const chosen = useView((s) => s.chosen)
  const choose = useView((s) => s.choose)
  const turnTo = useView((s) => s.turnTo)
  const list = useChosenInView(chosen)
  const [pass, setPass] = useState(1)
  const flow = useFlowLayer(visit)
  const lines = useKeptLines(visit)
  const most = plan ? Math.max(...plan.zones.map((z) => z.passes.length)) : 1
  const shownPass = Math.min(pass, most)

  const layers = useMemo(() => {
    const arrows: HeadArrow[] = []
    for (const zone of plan?.zones ?? []) {
      const record = head.data?.zoneById.get(zone.zoneId)
      const planned = zone.passes[shownPass - 1]
      if (!record || !planned) continue
      const { point, normal } = record.centre
      arrows.push({
        id: zone.zoneId,
        zoneId: zone.zoneId,
        point,
        normal,
        direction: directionOf(zone.zoneId, point, normal, planned.strokeBearing),
        kind: planned.relation,
        lengthMm: Math.min(26, Math.max(9, Math.sqrt(record.areaCm2) * 4)),
      })
    }
    return {
      flow,
      arrows,
      spots: markSpots(visit.asked.spots),
      lines,
      tints: (plan?.leftOut ?? []).map((z) => ({
        zoneId: z.zoneId,
        colour: '#BF4E36',
        opacity: 0.3,
      })),
    }
  }, [plan, head.data, shownPass, flow, lines, visit.asked.spots])
  useHeadLayers(layers)

  const keep = () => save.mutate()
  const toChair = () => void navigate(`/clients/${page.client.id}/chair`)
  useHotkeys([['K', () => visit.state === 'open' && keep()]])
  if (view.pending) {
    return (
      <section className="zone-detail" role="status">
        <h1>Plan</h1>
        <p className="lead">{view.why}</p>
      </section>
    )
  }
  if (!plan) {
    return (
      <section className="zone-detail">
        <h1>No plan</h1>
        <p className="lead">{view.why}</p>
        <Link className="strong" to={`/clients/${page.client.id}/ask`}>
          Back to Ask
        </Link>
      </section>
    )
  }
  const zone = plan.zones.find((z) => z.zoneId === chosen)
  const show = (z: ZonePlan) => {
    choose(z.zoneId)
    const record = head.data?.zoneById.get(z.zoneId)
    if (record) {
      const v = viewOf(record.centre.normal)
      turnTo(v.yawDeg, v.pitchDeg)
    }
  }
  return (
    <>
      <section className="plan-head">
        <div className="row-between">
          <h1>
            {Math.round(plan.totalMinutes)} min <small>of a {plan.slotMinutes} min slot</small>
          </h1>
          {visit.state === 'open' && (
            <div className="buttons">
              {(!view.kept || view.outdated) && (
                <button
                  className={view.kept ? 'strong' : 'strong deep'}
                  onClick={keep}
                  disabled={save.isPending}
                >
                  {view.kept ? 'Plan again' : 'Keep this plan'} <kbd>K</kbd>
                </button>
              )}
              {view.kept && (
                <button className="strong deep" onClick={toChair}>
                  To the chair
                </button>
              )}
            </div>
          )}
        </div>
        <p className="soft">
          {view.kept
            ? `Kept ${momentWords(visit.planMadeAtMs!)}.${view.outdated ? ' Since then something has changed: plan again to follow it.' : ' It stays as it is when the map changes later.'}`
            : 'Not kept yet: it follows every change at Ask and Read.'}
        </p>
        {save.isError && (
          <p role="alert" className="problem">
            {save.error.message}
          </p>
        )}
      </section>
      {zone ? (
        <ZonePlanDetail zone={zone} plan={plan} pass={shownPass} />
      ) : (
        <Whys reasons={plan.reasons} leftOut={plan.leftOut} />
      )}
      {most > 1 && (
        <div className="switch" role="group" aria-label="Arrows shown">
          {Array.from({ length: most }, (_, i) => (
            <button key={i} aria-pressed={shownPass === i + 1} onClick={() => setPass(i + 1)}>
              Pass {i + 1}
            </button>
          ))}
        </div>
      )}
      <div className="scroll" ref={list}>
        <table className="list tight pick">
          <thead>
            <tr>
              <th scope="col">In this order</th>
              <th scope="col">Passes</th>
              <th scope="col" className="num">
                Load
              </th>
              <th scope="col" className="num">
                Redness ≥ 2
              </th>
              <th scope="col" className="num">
                Smooth
              </th>
            </tr>
          </thead>
          <tbody>
            {plan.zones.map((z) => (
              <tr
                key={z.zoneId}
                className={z.zoneId === chosen ? 'chosen' : ''}
                onClick={() => show(z)}
              >
                <td>
                  <button className="row-button" aria-pressed={z.zoneId === chosen}>
                    {z.name}
                  </button>
                </td>
                <td className="passes">
                  {z.passes.map((p) => (
                    <RelationMark
                      key={p.pass}
                      relation={p.relation}
                      words={z.passes.length === 1}
                    />
                  ))}
                </td>
                <td className="num">{z.totalLoad.toFixed(1)}</td>
                <td className="num">{percentWords(z.rednessOdds)}</td>
                <td className="num">{hoursWords(z.smoothHours)}</td>
              </tr>
            ))}
            {plan.leftOut.map((z) => (
              <tr key={z.zoneId} className="left-out">
                <td>{z.name}</td>
                <td colSpan={4}>left out</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}

function Whys({ reasons, leftOut }: { reasons: readonly Reason[]; leftOut: Plan['leftOut'] }) {
  return (
    <ul className="whys">
      {leftOut.length > 0 && (
        <li>Left out: {leftOut.map((z) => zoneName(z.zoneId)).join('; ')}.</li>
      )}
      {reasons.map((r) => (
        <li key={r.text}>
          {r.text} <abbr title={MARK_WORDS[r.mark]}>({r.mark})</abbr>
        </li>
      ))}
      <li>Choose a zone for its hands, its blade and its reasons.</li>
    </ul>
  )
}

function ZonePlanDetail({ zone, plan, pass }: { zone: ZonePlan; plan: Plan; pass: number }) {
  const step =
    plan.steps.find((s) => s.id === `${zone.zoneId}:${pass}`) ??
    plan.steps.find((s) => s.zoneId === zone.zoneId)
  return (
    <section className="zone-detail plan-zone" aria-live="polite">
      <h2>{zone.name}</h2>
      <ul className="passes-list">
        {zone.passes.map((p) => (
          <li key={p.pass}>
            <RelationMark relation={p.relation} words={false} />
            <span>
              <b>{RELATION_WORDS[p.relation]}</b>, toward {clockWords(p.strokeBearing)} · load{' '}
              {p.load.toFixed(1)}
            </span>
          </li>
        ))}
        {zone.refused.map((p) => (
          <li key={p.relation} className="refused">
            <RelationMark relation={p.relation} words={false} />
            <span>
              not planned: {p.reason} It would buy about {hoursWords(Math.max(0, p.gainHours))} (H).
            </span>
          </li>
        ))}
      </ul>
      <p className="soft">
        {zone.blade}, {zone.bladeAngleDeg}° to the skin, {zone.usableWidthMm} mm of edge used ·{' '}
        {minutesOf(plan, zone)} · no pressure
      </p>
      {step && <Hands step={step} />}
      {zone.avoid.map((a) => (
        <p key={a} className="notice">
          {a}
        </p>
      ))}
      <ul className="whys">
        {zone.reasons.map((r) => (
          <li key={r.text}>
            {r.text} <abbr title={MARK_WORDS[r.mark]}>({r.mark})</abbr>
          </li>
        ))}
      </ul>
    </section>
  )
}

function Hands({ step }: { step: PlanStep }) {
  return (
    <p>
      <b>Free hand:</b> {step.freeHand} <b>Stance:</b> {step.stance?.text} {step.headTurn}
    </p>
  )
}

function minutesOf(plan: Plan, zone: ZonePlan): string {
  const minutes = plan.steps
    .filter((s) => s.zoneId === zone.zoneId)
    .reduce((s, step) => s + step.minutes, 0)
  return minutes < 1 ? `${Math.round(minutes * 60)} s` : `${minutes.toFixed(1)} min`
}
