/** Choices against an outcome: each with its range and what it takes to tell more; never a bare ranking. */
import type { Effects } from '../../core/history/index.ts'

export function EffectList({ effects }: { effects: Effects }) {
  const told = effects.effects.filter((e) => e.verdict !== 'never-varied')
  const same = effects.effects.filter((e) => e.verdict === 'never-varied')
  return (
    <>
      <h3>
        {effects.outcome === 'redness' ? 'Redness' : 'Bumps'}{' '}
        <small>{effects.visits} answered visits</small>
      </h3>
      <ul className="effects">
        {told.map((e) => (
          <li key={e.id} className={`effect effect-${e.verdict}`}>
            <b>{e.name}.</b> {e.words}{' '}
            <small>
              {e.withIt} with, {e.without} without
            </small>
          </li>
        ))}
        {told.length === 0 && <li>Everything was always done the same way.</li>}
      </ul>
      {same.length > 0 && told.length > 0 && (
        <p className="soft">
          Never varied: {same.map((e) => e.name.split(',')[0]!.toLowerCase()).join(', ')}.
        </p>
      )}
    </>
  )
}
