/** What a finished service came to, against what was planned; pictures of the skin. */
import { Link } from 'react-router'
import { replayLive } from '../../../core/chair/service.ts'
import { zoneName } from '../../../core/head/zoneFacts.ts'
import type { Plan } from '../../../core/plan/types.ts'
import { timeWords } from '../../state/words.ts'
import type { StationProps } from '../useStation.ts'
import { Photos } from './Photos.tsx'

export function Finished({ page, visit, plan }: StationProps & { plan: Plan }) {
  const { state } = replayLive(plan, visit.events)
  const minutes = state.spentMs / 60_000
  const skipped = Object.values(state.outcomes).filter((o) => o === 'skipped').length
  const looked = state.looked?.filter((z) => z.redness > 0) ?? []
  const facts: [string, string | number, (string | undefined)?][] = [
    ['Time', `${Math.round(minutes)} min`, `planned ${Math.round(plan.totalMinutes)}`],
    ['Blades', state.blades.length, `planned ${plan.bladeCount}`],
    ['Nicks', state.nicks.length],
    ['Skipped', skipped],
    [
      'Redness at the chair',
      looked.length === 0
        ? state.looked
          ? 'clear'
          : 'not read'
        : Math.max(...looked.map((z) => z.redness)),
      looked.map((z) => zoneName(z.zoneId)).join(', ') || undefined,
    ],
  ]
  return (
    <main className="page">
      <div className="page-head">
        <h1>Service done</h1>
        <p>{page.client.name}</p>
      </div>
      <dl className="facts">
        {facts.map(([name, value, more]) => (
          <div key={name}>
            <dt>{name}</dt>
            <dd>
              {value}
              {more && <small>{more}</small>}
            </dd>
          </div>
        ))}
      </dl>
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
      {state.nicks.length > 0 && (
        <>
          <h2>Nicks</h2>
          <ul>
            {state.nicks.map((n) => (
              <li key={n.id}>
                {timeWords(n.atMs)} {n.zoneId ? zoneName(n.zoneId) : 'place not told'}
                {n.sizeMm !== undefined && `, ${n.sizeMm} mm`}
                {n.did && n.did.length > 0 && `: ${n.did.join(', ')}`}
                {n.contact && '. Blood touched the worker or a tool: see your local rule.'}
              </li>
            ))}
          </ul>
        </>
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
