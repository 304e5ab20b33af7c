/** Consent: what was signed, by whom, when; or the text that is to be signed. */
import { Alert, Button, Group, Stack, Text } from '@mantine/core'
import { Link } from 'react-router'
import { consentText, type Asked, type Consent } from '../../../core/screening/index.ts'
import { whenWords } from '../../../core/time/index.ts'
import type { StationProps } from '../useStation.ts'
import css from './Ask.module.css'
import type { Change } from './Questions.tsx'
import { BOX } from './signature.ts'

export function ConsentTab({
  page,
  visit,
  house,
  asked,
  frozen,
  onChange,
}: StationProps & { asked: Asked; frozen: boolean; onChange: Change }) {
  const { consent } = asked
  const text = house.consentText || consentText(visit.jobs)
  return (
    <Stack gap="md" py="xs">
      {consent ? (
        <Signed consent={consent} />
      ) : (
        <>
          <Text style={{ whiteSpace: 'pre-line' }}>{text}</Text>
          <Text size="sm" c="dimmed">
            {asked.answers['under-age']?.yes
              ? 'The client is under age: a guardian writes their name and signs, below.'
              : 'Sign in the field below: a name and a stroke of the pen.'}
          </Text>
        </>
      )}
      {consent && consent.text !== text && (
        <Alert>The text has changed since. It may be signed anew.</Alert>
      )}
      <Group gap="sm">
        <Button component={Link} to={`/clients/${page.client.id}/cards/consent?visit=${visit.id}`}>
          Print
        </Button>
        {consent && !frozen && (
          <Button onClick={() => onChange(() => ({ consent: undefined }))}>Sign anew</Button>
        )}
      </Group>
    </Stack>
  )
}

export function Signed({ consent }: { consent: Consent }) {
  return (
    <>
      <p className="consent-text">{consent.text}</p>
      <figure className={css.drawn}>
        {consent.onPaper ? (
          <p>Signed on paper, which the house keeps.</p>
        ) : (
          <svg
            viewBox={`0 0 ${BOX.width} ${BOX.height}`}
            role="img"
            aria-label={`Signature of ${consent.name}`}
          >
            <path d={consent.path} />
          </svg>
        )}
        <figcaption>
          {consent.name}
          {consent.asGuardian ? ', as guardian' : ''}, {whenWords(consent.signedAtMs)}
        </figcaption>
      </figure>
    </>
  )
}
