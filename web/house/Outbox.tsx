/** The outbox of the house: what would be sent to whom, and when. Nothing leaves this machine. */
import { useQuery } from '@tanstack/react-query'
import { Link } from 'react-router'
import { call } from '../api/call.ts'
import { whenWords } from '../../core/time/index.ts'

const SHOWN = 60

export function Outbox() {
  const all = useQuery({ queryKey: ['messages'], queryFn: () => call('messages') })
  const now = Date.now()
  const waiting = all.data?.filter((m) => m.state === 'waiting') ?? []
  const ahead = waiting.filter((m) => m.dueAtMs > now).reverse()
  const before = waiting.filter((m) => m.dueAtMs <= now)
  return (
    <div className="stack">
      <p>
        A stand-in for messages: nothing leaves this machine. Texts are read, changed, copied and
        taken back at the client’s Care.
      </p>
      {all.isError && (
        <p role="alert" className="problem">
          {all.error.message}
        </p>
      )}
      {all.data && waiting.length === 0 && (
        <p>Nothing is waiting: messages are written when a service is finished.</p>
      )}
      {waiting.length > 0 && (
        <table className="list tight">
          <thead>
            <tr>
              <th scope="col">When</th>
              <th scope="col">To</th>
              <th scope="col">What</th>
            </tr>
          </thead>
          <tbody>
            {[...ahead, ...before].slice(0, SHOWN).map((m) => (
              <tr key={m.id}>
                <td>{m.dueAtMs > now ? whenWords(m.dueAtMs) : `was ${whenWords(m.dueAtMs)}`}</td>
                <td>
                  <Link to={`/clients/${m.clientId}/care?visit=${m.visitId}`}>{m.to}</Link>
                </td>
                <td>{m.subject}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  )
}
