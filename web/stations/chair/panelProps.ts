/** What every question of the chair is given, and how a change of the rest is told. */
import type { Cause, Replanned, Draft } from '../../../core/chair/index.ts'
import type { ChairProps } from './ChairHead.tsx'

type Tell = (draft: Draft) => Promise<boolean>
export interface PanelProps extends ChairProps {
  readonly tell: Tell
  readonly onClose: () => void
}

/** The new rest as an event. */
export const amended = (r: Replanned): Draft => ({
  kind: 'amended',
  detail: { amendment: r.amendment },
})

export const STOP: Cause = { kind: 'stop' }
export const CAUSE_WORDS: Readonly<Record<Cause['kind'], string>> = {
  stop: 'Stop: no more strokes',
  gentler: 'Gentler',
  'skip-zone': 'Skip the zone',
  'leave-out': 'Leave the place out',
  missed: 'Take what was missed',
  heavier: 'Begin with that side',
  felt: 'Lay it by what was felt',
}
