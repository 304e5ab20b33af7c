/** The aftercare as one page of PDF, in large plain words; the fonts are embedded, so that every name can be written. */
import { createRequire } from 'node:module'
import PDFDocument from 'pdfkit'
import type { CarePlan, Clearance } from '../../core/care/clearances.ts'

const find = createRequire(import.meta.url)
const font = (set: string, weight: 400 | 700) =>
  find.resolve(
    `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${set}-${weight}-normal.woff`,
  )

const INK = '#17323B'
const SOFT = '#51656b'
const TIDE = '#2B7A82'
const CORAL = '#A63F2A'
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
  const doc = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    info: { Title: `After your ${f.service.toLowerCase()}`, Author: f.house },
    lang: 'en',
    bufferPages: true,
  })
  const parts: Buffer[] = []
  doc.on('data', (part: Buffer) => parts.push(part))
  const ended = new Promise<void>((resolve) => doc.on('end', resolve))
  const plain = /^[\n\u0020-\u00ff\u2010-\u2026]*$/
  const face = (text: string, weight: 400 | 700) =>
    doc.font(font(plain.test(text) ? 'latin' : 'latin-ext', weight))
  const wide = doc.page.width - 2 * MARGIN
  /** Names of other scripts than Latin cannot be drawn with these fonts; what can be is. */
  const write = (
    text: string,
    options: {
      weight?: 400 | 700
      colour?: string
      scale?: number
      gap?: number
      x?: number
      width?: number
    } = {},
  ) => {
    // A line may mix both sets: each run is drawn with the one that holds it.
    const runs = text.match(
      /[\n\u0020-\u00ff\u2010-\u2026]+|[^\n\u0020-\u00ff\u2010-\u2026]+/g,
    ) ?? ['']
    doc.fillColor(options.colour ?? INK).fontSize(size * (options.scale ?? 1))
    runs.forEach((run, i) => {
      face(run, options.weight ?? 400)
      const last = i === runs.length - 1
      const settings = { continued: !last, width: options.width ?? wide }
      if (i === 0) doc.text(run, options.x ?? MARGIN, doc.y, settings)
      else doc.text(run, settings)
    })
    doc.y += (options.gap ?? 0) * size
  }
  const rule = () => {
    doc
      .moveTo(MARGIN, doc.y)
      .lineTo(doc.page.width - MARGIN, doc.y)
      .lineWidth(0.7)
      .strokeColor(INK)
      .stroke()
    doc.y += 0.45 * size
  }
  const row = (title: string, text: string, when: string, colour: string) => {
    const top = doc.y
    const side = wide * 0.31
    write(title, { weight: 700, width: wide - side - 10 })
    write(text, { colour: SOFT, scale: 0.86, width: wide - side - 10 })
    const end = doc.y
    doc.y = top
    write(when, { weight: 700, colour, x: MARGIN + wide - side, width: side })
    doc.y = Math.max(end, doc.y) + 0.3 * size
    doc.x = MARGIN
  }
  const of = (kind: Clearance['kind']) => f.care.clearances.filter((c) => c.kind === kind)
  write(`After your ${f.service.toLowerCase()}`, { weight: 700, scale: 1.75 })
  write(`${f.client} · ${f.when(f.care.endedAtMs)} · ${f.house}`, { colour: SOFT, gap: 0.5 })
  write('Keep off', { weight: 700, scale: 1.15, gap: 0.15 })
  rule()
  for (const c of of('avoid')) row(c.title, c.text, `until ${f.when(c.untilMs)}`, CORAL)
  doc.y += 0.35 * size
  write('Do', { weight: 700, scale: 1.15, gap: 0.15 })
  rule()
  write(f.care.product, { gap: 0.3 })
  for (const c of of('do')) row(c.title, c.text, `from ${f.when(c.fromMs)}`, TIDE)
  if (f.next !== undefined) row('Next visit', 'Good days for it.', f.next, TIDE)
  doc.y += 0.35 * size
  write('Normal, and not', { weight: 700, scale: 1.15, gap: 0.15 })
  rule()
  write(f.care.normal, { gap: 0.25 })
  for (const c of of('watch')) {
    write(`${c.title}. ${c.text}`, { gap: 0.25 })
  }
  write(f.care.notNormal, { weight: 700, colour: CORAL, gap: 0.35 })
  write('The product label and a clinician’s advice come before this sheet.', {
    colour: SOFT,
    scale: 0.86,
  })
  const pages = doc.bufferedPageRange().count
  doc.end()
  await ended
  return { bytes: Buffer.concat(parts), pages }
}
