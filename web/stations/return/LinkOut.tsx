/** A link page for the client: made, shown once, copied or scanned, taken back. */
import { Problem } from '../../ui/Panel.tsx'
import { Anchor, Button, Group, Text, Alert, CopyButton, Stack, TextInput } from '@mantine/core'
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
    <Alert component="section" flex="none" aria-label="Let the client answer">
      <Text size="sm" c="dimmed">
        {phone ? (
          <>
            Ask by telephone: <a href={telephone(phone)}>{phone}</a>, or let{' '}
          </>
        ) : (
          'Let '
        )}
        the client answer six questions on a page of their own
        {open ? `, open until ${dateWords(visit.linkUntilMs!)}` : ''}.
      </Text>
      <Group gap="sm">
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
      </Group>
      {url && <MadeLink url={url} />}
      {(make.isError || takeBack.isError) && (
        <Problem>{(make.error ?? takeBack.error)?.message}</Problem>
      )}
    </Alert>
  )
}

function MadeLink({ url }: { url: string }) {
  const code = useQuery({
    queryKey: ['qr', url],
    queryFn: async () => (await import('qrcode')).toDataURL(url, { margin: 1, width: 168 }),
    staleTime: Infinity,
  })
  return (
    <Group gap="md" wrap="nowrap">
      {code.data && (
        <img src={code.data} width="112" height="112" alt="The link as a code to scan" />
      )}
      <Stack gap="xs" flex={1}>
        <TextInput
          readOnly
          value={url}
          aria-label="Link for the client"
          onFocus={(e) => e.currentTarget.select()}
        />
        <Group gap="sm">
          <CopyButton value={url}>
            {({ copied, copy }) => (
              <Button size="sm" onClick={copy}>
                {copied ? 'Copied' : 'Copy'}
              </Button>
            )}
          </CopyButton>
          <Anchor href={url} target="_blank" rel="noreferrer">
            Open it here
          </Anchor>
        </Group>
      </Stack>
    </Group>
  )
}
