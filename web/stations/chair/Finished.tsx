/** What a finished service came to. */
import { Link } from 'react-router'

import type { ChairProps } from './ChairHead.tsx'

export function Finished({ page, visit, plan }: ChairProps) {
  const { chair: state } = visit
  const minutes = ((state.finishedAtMs ?? 0) - (state.startedAtMs ?? 0)) / 60_000
  const skipped = Object.values(state.outcomes).filter((o) => o === 'skipped').length
  return (
    <main className="page">
      <div className="page-head">
        <h1>Service done</h1>
        <p>{page.client.name}</p>
      </div>
      <dl className="facts">
        <div>
          <dt>Time</dt>
          <dd>
            {Math.round(minutes)} min, planned {Math.round(plan.totalMinutes)}
          </dd>
        </div>
        <div>
          <dt>Blades</dt>
          <dd>{state.blade}</dd>
        </div>
        <div>
          <dt>Nicks</dt>
          <dd>{state.nicks.length}</dd>
        </div>
        <div>
          <dt>Skipped</dt>
          <dd>{skipped}</dd>
        </div>
      </dl>
      <Link className="strong deep" to={`/clients/${page.client.id}/care`}>
        To the care sheet
      </Link>
    </main>
  )
}
