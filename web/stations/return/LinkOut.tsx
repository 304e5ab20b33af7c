/** A link page for the client: made, shown once, copied or scanned, taken back. */
import { Button } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useLink } from '../../api/visitWrites.ts'
import { dateWords } from '../../../core/time/index.ts'
import { telephone } from '../../state/words.ts'
import type { StationProps } from '../useStation.ts'

export function LinkOut({ page, visit }: StationProps) {
  const { make, takeBack } = useLink(visit.id)
  const { phone } = page.client
  const url = make.data?.url
  const open = visit.linkUntilMs !== null && visit.linkUntilMs > Date.now()
  return (
    <section className="link-out" aria-label="Let the client answer">
      <p className="soft">
        {phone ? (
          <>
            Ask by telephone: <a href={telephone(phone)}>{phone}</a>, or let{' '}
          </>
        ) : (
          'Let '
        )}
        the client answer six questions on a page of their own
        {open ? `, open until ${dateWords(visit.linkUntilMs!)}` : ''}.
      </p>
      <span className="buttons">
        <Button
          size="sm"

          disabled={make.isPending}
          onClick={() => make.mutate()}
          title="Shown once: only its digest is kept. It also goes into the waiting messages."
        >
          {open ? 'Make a new link' : 'Make a link'}
        </Button>
        {open && (
          <Button
            variant="bare"
            size="sm"

            onClick={() => takeBack.mutate(undefined, { onSuccess: () => make.reset() })}
          >
            Take back
          </Button>
        )}
      </span>
      {url && <MadeLink url={url} />}
      {(make.isError || takeBack.isError) && (
        <p role="alert" className="problem">
          {(make.error ?? takeBack.error)?.message}
        </p>
      )}
    </section>
  )
}

function MadeLink({ url }: { url: string }) {
  const code = useQuery({
    queryKey: ['qr', url],
    queryFn: async () => (await import('qrcode')).toDataURL(url, { margin: 1, width: 168 }),
    staleTime: Infinity,
  })
  return (
    <div className="made-link">
      {code.data && (
        <img src={code.data} width="112" height="112" alt="The link as a code to scan" />
      )}
      <div className="stack grow">
        <input
          className="text-input"
          readOnly
          value={url}
          aria-label="Link for the client"
          onFocus={(e) => e.currentTarget.select()}
        />
        <span className="buttons">
          <Button size="sm" onClick={() => void navigator.clipboard?.writeText(url)}>
            Copy
          </Button>
          <a className="link" href={url} target="_blank" rel="noreferrer">
            Open it here
          </a>
        </span>
      </div>
    </div>
  )
}
