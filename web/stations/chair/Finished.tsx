/** What a finished service came to, against what was planned; what happened to the skin; pictures of it. */
import { UnstyledButton } from '@mantine/core'
import { Link } from 'react-router'
import { nickZone, LEFT_OPEN, type Live } from '../../../core/chair/index.ts'
import { zoneName, type ZoneId } from '../../../core/zones/index.ts'
import { serviceInWords } from '../../../core/visit/index.ts'
import type { Plan } from '../../../core/plan/index.ts'
import { timeWords, whenWords } from '../../../core/time/index.ts'
import type { StationProps } from '../useStation.ts'
import { Photos } from './Photos.tsx'
import { useChair } from './useChair.ts'

export function Finished({ page, visit, plan }: StationProps & { plan: Plan }) {
  const chair = useChair(visit, plan)
  const { live } = chair
  const { state } = live
  const leftOpen = Object.values(state.skipReasons).includes(LEFT_OPEN)
  const left = Object.entries(visit.atChair.leftOut)
  const begunAway =
    live.state.startId && visit.events.find((e) => e.id === live.state.startId)?.reason
  const takeBack = (of: string) => void chair.link.tell({ kind: 'taken-back', detail: { of } })
  return (
    <main className="page">
      <div className="page-head">
        <h1>Service done</h1>
        <p>{page.client.name}</p>
      </div>
      {begunAway && (
        <p className="notice" role="note">
          {begunAway}
        </p>
      )}
      {leftOpen && (
        <p className="notice">
          It was left open, and ended as of its last event, {whenWords(state.finishedAtMs!)}. What
          was not reached was not done.
        </p>
      )}
      <dl className="facts">
        {serviceInWords(plan, state).map(({ name, words, beside }) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>
              {words}
              {beside && <small>{beside}</small>}
            </dd>
          </div>
        ))}
      </dl>
      <Happened live={live} onTakeBack={takeBack} />
      {left.length > 0 && (
        <>
          <h2>Left out</h2>
          <ul>
            {left.map(([zone, why]) => (
              <li key={zone}>
                {zoneName(zone as ZoneId)}: {why}
              </li>
            ))}
          </ul>
        </>
      )}
      {state.patchesLeft.length > 0 && (
        <p>
          {state.patchesLeft.length} missed{' '}
          {state.patchesLeft.length === 1 ? 'patch was' : 'patches were'} seen and left:{' '}
          {[...new Set(state.patchesLeft.map((p) => zoneName(p.zoneId)))].join(', ')}.
        </p>
      )}
      {state.amendments.length > 0 && (
        <>
          <h2>Changed on the way</h2>
          <ul>
            {state.amendments.map((a) => (
              <li key={a.atMs + a.text}>
                {timeWords(a.atMs)} {a.text}
              </li>
            ))}
          </ul>
        </>
      )}
      {chair.problem && (
        <p role="alert" className="problem">
          {chair.problem}
        </p>
      )}
      <Photos visit={visit} />
      <p>
        <Link className="strong deep" to={`/clients/${page.client.id}/care`}>
          To the care sheet
        </Link>
      </p>
    </main>
  )
}

/** Redness and nicks as they were told; what was no such thing is taken back. */
function Happened({
  live: { plan, state },
  onTakeBack,
}: {
  live: Live
  onTakeBack: (of: string) => void
}) {
  const back = (id: string) => (
    <UnstyledButton className="link" onClick={() => onTakeBack(id)}>
      Take back
    </UnstyledButton>
  )
  return (
    <>
      {state.redness.length > 0 && (
        <>
          <h2>Reddened at the chair</h2>
          <ul>
            {state.redness.map((r) => (
              <li key={r.id}>
                {timeWords(r.atMs)} {r.zoneId ? zoneName(r.zoneId) : 'place not told'}: {r.grade}
                {r.welt && ', a welt'} {back(r.id)}
              </li>
            ))}
          </ul>
        </>
      )}
      {state.nicks.length > 0 && (
        <>
          <h2>Nicks</h2>
          <ul>
            {state.nicks.map((n) => {
              const zone = nickZone(plan, n)
              return (
                <li key={n.id}>
                  {timeWords(n.atMs)} {zone ? zoneName(zone) : 'place not told'}
                  {n.sizeMm !== undefined && `, ${n.sizeMm} mm`}
                  {n.did && n.did.length > 0 && `: ${n.did.join(', ')}`}
                  {n.contact && '. Blood touched the worker or a tool: see your local rule.'}{' '}
                  {back(n.id)}
                </li>
              )
            })}
          </ul>
        </>
      )}
    </>
  )
}
