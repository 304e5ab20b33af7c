/** The aftercare as one page of PDF, in large plain words. */
import type { CarePlan, Clearance } from '../../core/care/index.ts'
import { CORAL, Pen, SOFT, TIDE } from '../paper/pen.ts'

const MARGIN = 42

export interface SheetFacts {
  readonly care: CarePlan
  readonly client: string
  readonly service: string
  readonly house: string
  readonly next?: string | undefined
  readonly when: (ms: number) => string
}

/** Draws the sheet. Type is set as large as lets it all stand on one A4 page. */
export async function careSheet(facts: SheetFacts): Promise<Buffer> {
  for (const size of [14, 13, 12, 11, 10, 9]) {
    const drawn = await draw(facts, size)
    if (drawn.pages === 1) return drawn.bytes
  }
  return (await draw(facts, 8)).bytes
}

async function draw(f: SheetFacts, size: number): Promise<{ bytes: Buffer; pages: number }> {
  const pen = new Pen(`After your ${f.service.toLowerCase()}`, f.house, size, MARGIN)
  const of = (kind: Clearance['kind']) => f.care.clearances.filter((c) => c.kind === kind)
  pen.write(`After your ${f.service.toLowerCase()}`, { weight: 700, scale: 1.75 })
  pen.write(`${f.client} · ${f.when(f.care.endedAtMs)} · ${f.house}`, { colour: SOFT, gap: 0.5 })
  if (f.care.today.length > 0) {
    pen.write('Today', { weight: 700, scale: 1.15, gap: 0.15 })
    pen.rule()
    for (const t of f.care.today) pen.write(t, { gap: 0.25 })
    pen.skip(0.35)
  }
  pen.write('Keep off', { weight: 700, scale: 1.15, gap: 0.15 })
  pen.rule()
  for (const c of of('avoid')) pen.row(c.title, c.text, `until ${f.when(c.untilMs)}`, CORAL)
  pen.skip(0.35)
  pen.write('Do', { weight: 700, scale: 1.15, gap: 0.15 })
  pen.rule()
  pen.write(f.care.product, { gap: 0.3 })
  for (const c of of('do')) pen.row(c.title, c.text, `from ${f.when(c.fromMs)}`, TIDE)
  if (f.next !== undefined) pen.row('Next visit', 'Good days for it.', f.next, TIDE)
  pen.skip(0.35)
  pen.write('Normal, and not', { weight: 700, scale: 1.15, gap: 0.15 })
  pen.rule()
  pen.write(f.care.normal, { gap: 0.25 })
  for (const c of of('watch')) pen.write(`${c.title}. ${c.text}`, { gap: 0.25 })
  pen.write(f.care.notNormal, { weight: 700, colour: CORAL, gap: 0.35 })
  pen.write('The product label and a clinician’s advice come before this sheet.', {
    colour: SOFT,
    scale: 0.86,
  })
  const { pages } = pen
  return { bytes: await pen.end(), pages }
}
