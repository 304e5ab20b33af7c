/** The house's own figures on this screen: set where the house arrives, asked for by what works models out here. */
import { create } from 'zustand'
import { DEFAULTS, type Figures, type ChangedFigures } from '../../core/house/index.ts'

interface Known {
  /** As they are sent, to a worker for one. */
  readonly changed: ChangedFigures
  readonly figures: Figures
}

const useKnown = create<Known>(() => ({ changed: {}, figures: DEFAULTS }))

/** What every model of core is asked with. */
export const useFigures = (): Figures => useKnown((s) => s.figures)

export const changedFigures = (): ChangedFigures => useKnown.getState().changed

/** Tells when the figures change. */
export const onFigures = (listen: (changed: ChangedFigures) => void): void =>
  void useKnown.subscribe((s) => listen(s.changed))

/** Takes the figures over; the register is fetched only for a house that has changed some. */
export async function takeFigures(changed: ChangedFigures): Promise<void> {
  if (JSON.stringify(changed) === JSON.stringify(changedFigures())) return
  const { figuresOf } = await import('../../core/register/register.ts')
  useKnown.setState({ changed, figures: figuresOf(changed) })
}
