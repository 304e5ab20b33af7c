/** How grave a finding is: word and shape first, then colour. */
import { SEVERITY_WORDS } from '../../core/screening/index.ts'
import css from './Findings.module.css'
import type { Severity as Grade } from '../../core/services/index.ts'

const SHAPES: Record<Grade, React.ReactNode> = {
  note: <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" strokeWidth="1.5" />,
  'take-care': (
    <>
      <circle cx="8" cy="8" r="6.5" fill="none" stroke="currentColor" strokeWidth="1.5" />
      <circle cx="8" cy="8" r="3" fill="currentColor" />
    </>
  ),
  'leave-out': (
    <>
      <rect
        x="2"
        y="2"
        width="12"
        height="12"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.5"
      />
      <path d="M2 9l7-7M4 14L14 4M9 14l5-5" stroke="currentColor" strokeWidth="1.6" />
    </>
  ),
  postpone: (
    <>
      <circle cx="8" cy="8" r="6.5" fill="none" stroke="currentColor" strokeWidth="1.5" />
      <path d="M8 4v4l3 2" fill="none" stroke="currentColor" strokeWidth="1.6" />
    </>
  ),
  stop: <rect x="1" y="4" width="14" height="8" fill="currentColor" />,
}

export function SeverityMark({ grade }: { grade: Grade }) {
  return (
    <span className={css.severity} data-grade={grade}>
      <svg viewBox="0 0 16 16" width="16" height="16" aria-hidden>
        {SHAPES[grade]}
      </svg>
      {SEVERITY_WORDS[grade]}
    </span>
  )
}
