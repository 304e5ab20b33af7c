/** The house's own figures, put in place of the defaults wherever models run: here and in the worker. */
type Figures = Readonly<Record<string, number>>

let now: Figures = {}
const listeners = new Set<(figures: Figures) => void>()

/** The figures as they are now. */
export const houseFigures = () => now

/** Tells when the figures change. */
export function onFigures(listen: (figures: Figures) => void): void {
  listeners.add(listen)
}

/** Takes the figures over; the register is fetched only for a house that has changed some. */
export async function takeFigures(figures: Figures): Promise<void> {
  if (JSON.stringify(figures) === JSON.stringify(now)) return
  const { applyFigures } = await import('../../core/house/register.ts')
  applyFigures(figures)
  now = figures
  for (const listen of listeners) listen(figures)
}
