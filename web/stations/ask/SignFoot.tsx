/** The signature, in the place of the tide line until it is signed: full width, for a finger or a pen. */
import { Anchor, Button, Modal, Stack, Text, TextInput, Title } from '@mantine/core'
import { useDisclosure } from '@mantine/hooks'
import { useRef, useState } from 'react'
import { consentText } from '../../../core/screening/index.ts'
import { SERVICES } from '../../../core/services/index.ts'
import { FootInstead } from '../../ui/Stage.tsx'
import type { StationProps } from '../useStation.ts'
import css from './Ask.module.css'
import type { Change } from './Questions.tsx'

export const BOX = { width: 300, height: 100 } as const
/** Points nearer than this are one. */
const STEP = 1.2
/** A signature is at least this long, so that a slip of the pen is not one. */
const LEAST = 40

type Lines = readonly (readonly [number, number])[][]

const pathOf = (lines: Lines) =>
  lines
    .map((l) =>
      l.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(''),
    )
    .join('')

const lengthOf = (lines: Lines) =>
  lines.reduce(
    (sum, l) =>
      sum + l.slice(1).reduce((s, p, i) => s + Math.hypot(p[0] - l[i]![0], p[1] - l[i]![1]), 0),
    0,
  )

export function SignFoot({ page, visit, house, onChange }: StationProps & { onChange: Change }) {
  const asGuardian = visit.asked.answers['under-age']?.yes === true
  const text = house.consentText || consentText(visit.service)
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
          <Title order={3}>Consent to {SERVICES[visit.service].name.toLowerCase()}</Title>
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
          <Button variant="strong" disabled={!ready} onClick={() => sign(pathOf(lines), false)}>
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
  const box = useRef<SVGSVGElement>(null)
  const at = (e: React.PointerEvent): [number, number] => {
    const r = box.current!.getBoundingClientRect()
    // The box keeps its shape within the field; what is drawn beside it comes to its edge.
    const scale = Math.min(r.width / BOX.width, r.height / BOX.height)
    const x = (e.clientX - r.left - (r.width - BOX.width * scale) / 2) / scale
    const y = (e.clientY - r.top - (r.height - BOX.height * scale) / 2) / scale
    return [Math.min(BOX.width, Math.max(0, x)), Math.min(BOX.height, Math.max(0, y))]
  }
  return (
    <svg
      ref={box}
      viewBox={`0 0 ${BOX.width} ${BOX.height}`}
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
      <line x1="12" x2="288" y1="78" y2="78" />
      <path d={pathOf(lines)} />
    </svg>
  )
}
