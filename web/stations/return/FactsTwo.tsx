/** What was planned, done and answered at two visits, side by side. */
import { useFigures } from '../../state/figures.ts'
import type { VisitPage } from '../../../contract/types.ts'
import { address } from '../../api/call.ts'
import { dateWords } from '../../../core/time/index.ts'
import { bumps, worst, type Two } from '../../../core/history/index.ts'

export function FactsTwo({ then, now }: Two<VisitPage>) {
  const figures = useFigures()
  const rows: readonly (readonly [string, (v: VisitPage) => React.ReactNode])[] = [
    ['Map', (v) => `${v.readings.length} readings`],
    ['Plan', planWords],
    ['Lanes', laneWords],
    ['Blades', (v) => bladeWords(v)],
    [
      'Redness',
      (v) => {
        const w = v.endedAtMs === null ? undefined : worst(figures, v)
        return w ? `worst ${Math.max(0, ...w.values())}` : 'not answered'
      },
    ],
    [
      'Bumps',
      (v) => {
        const b = v.endedAtMs === null ? undefined : bumps(figures, v)
        return b ? String([...b.values()].reduce((s, n) => s + n, 0)) : 'not counted'
      },
    ],
    [
      'Felt',
      (v) => {
        const stings = v.answers.flatMap((a) => a.feeling?.stinging ?? [])
        return stings.length > 0 ? `stung up to ${Math.max(...stings)} of 10` : '–'
      },
    ],
    ['Nicks', (v) => String(v.chair.nicks.length)],
    ['Pictures', (v) => <Thumbs visit={v} />],
  ]
  return (
    <table className="list tight facts-two">
      <thead>
        <tr>
          <th scope="col">
            <span className="hidden">What</span>
          </th>
          {[then, now].map((v) => (
            <th key={v.id} scope="col">
              {v.endedAtMs ? dateWords(v.endedAtMs) : 'this visit'}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, of]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td>{of(then)}</td>
            <td>{of(now)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function planWords({ plan }: VisitPage): string {
  if (!plan) return 'none'
  const passes = Math.max(0, ...plan.zones.map((z) => z.passes.length))
  return `${Math.round(plan.totalMinutes)} min, ${passes === 1 ? 'one pass' : `up to ${passes} passes`}, ${plan.style}`
}

function laneWords({ plan, chair }: VisitPage): string {
  if (!plan || plan.lanes.length === 0) return '–'
  const done = plan.lanes.filter((l) => chair.outcomes[l.id] === 'done').length
  const skipped = plan.lanes.filter((l) => chair.outcomes[l.id] === 'skipped').length
  return `${done} of ${plan.lanes.length} done${skipped > 0 ? `, ${skipped} left out` : ''}`
}

function bladeWords({ plan, chair }: VisitPage): string {
  const names = [...new Set(plan?.lanes.map((l) => l.blade) ?? [])]
  return `${chair.blades.length} used${names.length > 0 ? `: ${names.join(', ')}` : ''}`
}

function Thumbs({ visit }: { visit: VisitPage }) {
  if (visit.photos.length === 0) return <>none</>
  return (
    <span className="thumbs">
      {visit.photos.map((p) => (
        <a key={p.id} href={address('photo', { id: p.id })} target="_blank" rel="noreferrer">
          <img
            src={`${address('photo', { id: p.id })}?size=thumbnail`}
            alt={`Skin, ${dateWords(p.atMs)}`}
          />
        </a>
      ))}
    </span>
  )
}
