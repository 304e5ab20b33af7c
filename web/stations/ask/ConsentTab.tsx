/** Consent: the text, who signs, and the signature drawn by hand. */
import { Button } from '@mantine/core'
import { useRef, useState } from 'react'
import { Link } from 'react-router'
import { consentText, type Consent } from '../../../core/screening/index.ts'
import { whenWords } from '../../../core/time/index.ts'
import type { StationProps } from '../useStation.ts'
import type { Change } from './Questions.tsx'

const BOX = { width: 300, height: 100 } as const
/** Points nearer than this are one. */
const STEP = 1.2
/** A signature is at least this long, so that a slip of the pen is not one. */
const LEAST = 40

export function ConsentTab({
  page,
  visit,
  house,
  frozen,
  onChange,
}: StationProps & { frozen: boolean; onChange: Change }) {
  const { consent } = visit.asked
  const minor = visit.asked.answers['under-age']?.yes === true
  const text = house.consentText || consentText(visit.service)
  if (consent) {
    return (
      <div className="stack">
        <Signed consent={consent} />
        {consent.text !== text && (
          <p className="notice">The text has changed since. It may be signed anew.</p>
        )}
        <p className="buttons">
          <Link
            className="strong"
            to={`/clients/${page.client.id}/cards/consent?visit=${visit.id}`}
          >
            Print
          </Link>
          {!frozen && (
            <Button onClick={() => onChange(() => ({ consent: undefined }))}>Sign anew</Button>
          )}
        </p>
      </div>
    )
  }
  return (
    <SignHere
      text={text}
      name={minor ? '' : page.client.name}
      asGuardian={minor}
      frozen={frozen}
      onSign={(signed) => onChange(() => ({ consent: signed }))}
    />
  )
}

export function Signed({ consent }: { consent: Consent }) {
  return (
    <>
      <p className="consent-text">{consent.text}</p>
      <figure className="signature">
        <svg
          viewBox={`0 0 ${BOX.width} ${BOX.height}`}
          role="img"
          aria-label={`Signature of ${consent.name}`}
        >
          <path d={consent.path} />
        </svg>
        <figcaption>
          {consent.name}
          {consent.asGuardian ? ', as guardian' : ''}, {whenWords(consent.signedAtMs)}
        </figcaption>
      </figure>
    </>
  )
}

function SignHere({
  text,
  name,
  asGuardian,
  frozen,
  onSign,
}: {
  text: string
  name: string
  asGuardian: boolean
  frozen: boolean
  onSign: (consent: Consent) => void
}) {
  const [who, setWho] = useState(name)
  const [lines, setLines] = useState<readonly (readonly [number, number])[][]>([])
  const drawing = useRef(false)
  const box = useRef<SVGSVGElement>(null)
  const path = lines
    .map((l) =>
      l.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(1)} ${y.toFixed(1)}`).join(''),
    )
    .join('')
  const length = lines.reduce(
    (sum, l) =>
      sum + l.slice(1).reduce((s, p, i) => s + Math.hypot(p[0] - l[i]![0], p[1] - l[i]![1]), 0),
    0,
  )
  const at = (e: React.PointerEvent): [number, number] => {
    const r = box.current!.getBoundingClientRect()
    return [
      ((e.clientX - r.left) / r.width) * BOX.width,
      ((e.clientY - r.top) / r.height) * BOX.height,
    ]
  }
  const ready = who.trim() !== '' && length >= LEAST
  return (
    <div className="stack">
      <p className="consent-text">{text}</p>
      <label className="lane-edit">
        {asGuardian ? 'Guardian’s name' : 'Name'}
        <input
          className="text-input"
          value={who}
          maxLength={80}
          disabled={frozen}
          onChange={(e) => setWho(e.currentTarget.value)}
        />
      </label>
      <svg
        ref={box}
        viewBox={`0 0 ${BOX.width} ${BOX.height}`}
        className="sign-here"
        role="application"
        aria-label="Field to sign in: draw with pen, finger or mouse"
        onPointerDown={(e) => {
          if (frozen) return
          e.currentTarget.setPointerCapture(e.pointerId)
          drawing.current = true
          const p = at(e)
          setLines((l) => [...l, [p]])
        }}
        onPointerMove={(e) => {
          if (!drawing.current) return
          const p = at(e)
          setLines((all) => {
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
        <path d={path} />
      </svg>
      <p className="buttons">
        <Button
          variant="strong"

          disabled={!ready || frozen}
          onClick={() =>
            onSign({ text, name: who.trim(), asGuardian, signedAtMs: Date.now(), path })
          }
        >
          Signed
        </Button>
        <Button disabled={lines.length === 0} onClick={() => setLines([])}>
          Clear
        </Button>
      </p>
      {!ready && (
        <p className="soft">
          {asGuardian
            ? 'The client is under age: a guardian writes their name and signs.'
            : 'Sign in the field: a name and a stroke of the pen.'}
        </p>
      )}
    </div>
  )
}
