/** What was planned, done and answered at two visits, side by side. */
import { useFigures } from '../../state/figures.ts'
import type { VisitPage } from '../../../contract/types.ts'
import { address } from '../../api/call.ts'
import { dateWords } from '../../../core/time/index.ts'
import type { Two } from '../../../core/history/index.ts'
import { visitInWords } from '../../../core/visit/index.ts'

export function FactsTwo({ then, now }: Two<VisitPage>) {
  const figures = useFigures()
  const [before, after] = [then, now].map((v) => visitInWords(figures, v))
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
        {before!.map(({ name, words }, i) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td>{words}</td>
            <td>{after![i]!.words}</td>
          </tr>
        ))}
        <tr>
          <th scope="row">Pictures</th>
          <td>
            <Thumbs visit={then} />
          </td>
          <td>
            <Thumbs visit={now} />
          </td>
        </tr>
      </tbody>
    </table>
  )
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
