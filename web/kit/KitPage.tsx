/** What the kit page will hold; the blades that plans already choose from are listed. */
import { SERVICE_BLADES } from '../../core/plan/blades.ts'
import { SERVICE_IDS, SERVICES } from '../../core/services.ts'

export function KitPage() {
  return (
    <main className="page narrow">
      <div className="page-head">
        <h1>Kit</h1>
        <p>blades, towels, sharps</p>
      </div>
      <p>
        Not built yet: stock counts, blade life learned from your own strokes, the sharps box, what
        each service costs. Until then plans choose from the usual blades below (measures are house
        estimates).
      </p>
      <table className="list">
        <thead>
          <tr>
            <th scope="col">Service</th>
            <th scope="col">Blade</th>
            <th scope="col" className="num">
              Edge, mm
            </th>
            <th scope="col" className="num">
              Angle, °
            </th>
          </tr>
        </thead>
        <tbody>
          {SERVICE_IDS.flatMap((id) =>
            SERVICE_BLADES[id].map((b) => (
              <tr key={id + b.id}>
                <td>{SERVICES[id].name}</td>
                <td>{b.name}</td>
                <td className="num">{b.edgeMm}</td>
                <td className="num">{b.angleDeg}</td>
              </tr>
            )),
          )}
        </tbody>
      </table>
    </main>
  )
}
