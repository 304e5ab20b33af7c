/** Consent on paper: the text, the signature, the day. */
import type { VisitPage } from '../../contract/types.ts'
import { consentText } from '../../core/screening/index.ts'
import { jobsWords } from '../../core/services/index.ts'
import { Signed } from '../stations/ask/ConsentTab.tsx'

export function ConsentCard({
  visit,
  name,
  houseName,
  houseText,
}: {
  visit: VisitPage
  name: string
  houseName: string
  houseText: string
}) {
  const { consent } = visit.asked
  return (
    <article className="card-sheet card-consent" aria-label="Consent">
      <header>
        <h1>Consent</h1>
        <p>
          {houseName} · {jobsWords(visit.jobs)}
        </p>
      </header>
      <p>
        <b>{name}</b>
      </p>
      {consent ? (
        <Signed consent={consent} />
      ) : (
        <>
          <p className="consent-text">{houseText || consentText(visit.jobs)}</p>
          <div className="sign-line">Name, date, signature</div>
        </>
      )}
    </article>
  )
}
