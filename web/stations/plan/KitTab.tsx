/** What to lay out before the client sits down, with counts and costs. */
import type { Plan } from '../../../core/plan/index.ts'

export function KitTab({ plan }: { plan: Plan }) {
  return (
    <>
      <table className="list tight">
        <thead>
          <tr>
            <th scope="col">Lay out</th>
            <th scope="col" className="num">
              How many
            </th>
            <th scope="col" className="num">
              Cost, € (H)
            </th>
          </tr>
        </thead>
        <tbody>
          {plan.kit.map((k) => (
            <tr key={k.name}>
              <td>{k.name}</td>
              <td className="num">
                {k.count} {k.unit}
              </td>
              <td className="num">{k.cost === 0 ? '–' : k.cost.toFixed(2)}</td>
            </tr>
          ))}
          <tr>
            <td>
              <b>This service</b>
            </td>
            <td />
            <td className="num">
              <b>{plan.cost.toFixed(2)}</b>
            </td>
          </tr>
        </tbody>
      </table>
      <p className="soft">
        A fresh blade for every client (C); used ones straight into the sharps box. Prices are the
        house’s, in House under Blades and What lies ready.
      </p>
    </>
  )
}
