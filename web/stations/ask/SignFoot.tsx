/** The signature, in the place of the tide line until it is signed: full width, for a finger or a pen. */
import { lowerFirst } from '../../../core/words.ts'
import { Anchor, Button, Modal, Stack, Text, TextInput, Title } from '@mantine/core'
import { useDisclosure, useElementSize } from '@mantine/hooks'
import { useRef, useState } from 'react'
import { consentText, type Asked } from '../../../core/screening/index.ts'
import { jobsWords } from '../../../core/services/index.ts'
import { FootInstead } from '../../ui/Stage.tsx'
import type { StationProps } from '../useStation.ts'
import css from './Ask.module.css'
import type { Change } from './Questions.tsx'
import { BOX, fitted, lengthOf, LEAST, pathOf, STEP, type Lines } from './signature.ts'

export function SignFoot({
  page,
  visit,
  house,
  asked,
  onChange,
}: StationProps & { asked: Asked; onChange: Change }) {
  const asGuardian = asked.answers['under-age']?.yes === true
  const text = house.consentText || consentText(visit.jobs)
  const [who, setWho] = useState(asGuardian ? '' : page.client.name)
  const [lines, setLines] = useState<Lines>([])
  const [reading, read] = useDisclosure(false)
  const ready = who.trim() !== '' && lengthOf(lines) >= LEAST
  const sign = (path: string, onPaper: boolean) =>
    onChange(() => ({
      consent: {
        ...{ text, name: who.trim(), asGuardian, signedAtMs: Date.now(), path },
        ...(onPaper && { onPaper }),
      },
    }))
  return (
    <FootInstead>
      <section className={css.foot} aria-label="Consent">
        <div>
          <Title order={3} lineClamp={1}>
            Consent to {lowerFirst(jobsWords(visit.jobs))}
          </Title>
          <Text size="sm" lineClamp={1}>
            {text}
          </Text>
          <Anchor component="button" size="sm" onClick={read.open}>
            Read it in full
          </Anchor>
          <TextInput
            mt={4}
            aria-label={asGuardian ? 'Guardian’s name' : 'Name'}
            placeholder={asGuardian ? 'Guardian’s name' : 'Name'}
            value={who}
            maxLength={80}
            onChange={(e) => setWho(e.currentTarget.value)}
          />
        </div>
        <Pad lines={lines} onLines={setLines} />
        <Stack gap={6} justify="center">
          <Button
            variant="strong"
            disabled={!ready}
            onClick={() => sign(pathOf(fitted(lines)), false)}
          >
            Signed
          </Button>
          <Button size="sm" disabled={lines.length === 0} onClick={() => setLines([])}>
            Clear
          </Button>
          <Button size="sm" disabled={who.trim() === ''} onClick={() => sign('', true)}>
            On paper instead
          </Button>
        </Stack>
      </section>
      <Modal opened={reading} onClose={read.close} title="Consent" size="lg">
        <Text style={{ whiteSpace: 'pre-line' }}>{text}</Text>
      </Modal>
    </FootInstead>
  )
}

function Pad({
  lines,
  onLines,
}: {
  lines: Lines
  onLines: React.Dispatch<React.SetStateAction<Lines>>
}) {
  const drawing = useRef(false)
  const { ref, width, height } = useElementSize<HTMLDivElement>()
  // As wide as the field is beside its height: all of it may be signed on.
  const wide = height > 0 ? (BOX.height * width) / height : BOX.width
  const at = (e: React.PointerEvent): [number, number] => {
    const r = e.currentTarget.getBoundingClientRect()
    const within = (share: number, most: number) => Math.min(most, Math.max(0, share * most))
    return [
      within((e.clientX - r.left) / r.width, wide),
      within((e.clientY - r.top) / r.height, BOX.height),
    ]
  }
  return (
    <div
      ref={ref}
      className={css.pad}
      role="application"
      aria-label="Field to sign in: draw with pen, finger or mouse"
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId)
        drawing.current = true
        const p = at(e)
        onLines((l) => [...l, [p]])
      }}
      onPointerMove={(e) => {
        if (!drawing.current) return
        const p = at(e)
        onLines((all) => {
          const last = all[all.length - 1]!
          const end = last[last.length - 1]!
          if (Math.hypot(p[0] - end[0], p[1] - end[1]) < STEP) return all
          return [...all.slice(0, -1), [...last, p]]
        })
      }}
      onPointerUp={() => (drawing.current = false)}
      onPointerCancel={() => (drawing.current = false)}
    >
      <svg viewBox={`0 0 ${wide} ${BOX.height}`} aria-hidden>
        <line x1="12" x2={wide - 12} y1="78" y2="78" />
        <path d={pathOf(lines)} />
      </svg>
    </div>
  )
}
