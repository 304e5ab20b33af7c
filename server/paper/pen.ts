/** Writing on PDF pages in the product's own face; the fonts are embedded, so that every name can be written. */
import { LIGHT } from '../../core/palette.ts'
import { createRequire } from 'node:module'
import PDFDocument from 'pdfkit'

const find = createRequire(import.meta.url)
export const fontFile = (set: 'latin' | 'latin-ext', weight: 400 | 700) =>
  find.resolve(
    `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-${set}-${weight}-normal.woff`,
  )

export const { ink: INK, soft: SOFT, tide: TIDE, coral: CORAL } = LIGHT

const PLAIN = /[\n\u0020-\u00ff\u2010-\u2026]+|[^\n\u0020-\u00ff\u2010-\u2026]+/g
const ALL_PLAIN = /^[\n\u0020-\u00ff\u2010-\u2026]*$/

export interface WriteOptions {
  readonly weight?: 400 | 700
  readonly colour?: string
  /** Of the base size. */
  readonly scale?: number
  /** Room below, in lines of the base size. */
  readonly gap?: number
  readonly x?: number
  readonly width?: number
  readonly align?: 'left' | 'right'
}

/** A document with a place to write at. */
export class Pen {
  readonly doc: PDFKit.PDFDocument
  readonly wide: number
  private readonly size: number
  private readonly margin: number
  private readonly parts: Buffer[] = []
  private readonly ended: Promise<void>

  constructor(title: string, author: string, size: number, margin: number) {
    this.size = size
    this.margin = margin
    this.doc = new PDFDocument({
      size: 'A4',
      margin,
      info: { Title: title, Author: author },
      lang: 'en',
      bufferPages: true,
    })
    this.doc.on('data', (part: Buffer) => this.parts.push(part))
    this.ended = new Promise<void>((resolve) => this.doc.on('end', resolve))
    this.wide = this.doc.page.width - 2 * margin
  }

  get left(): number {
    return this.margin
  }

  /** Names of other scripts than Latin cannot be drawn with these fonts; what can be is. */
  write(text: string, options: WriteOptions = {}): void {
    const { doc } = this
    // A line may mix both sets: each run is drawn with the one that holds it.
    const runs = text.match(PLAIN) ?? ['']
    doc.fillColor(options.colour ?? INK).fontSize(this.size * (options.scale ?? 1))
    runs.forEach((run, i) => {
      doc.font(fontFile(ALL_PLAIN.test(run) ? 'latin' : 'latin-ext', options.weight ?? 400))
      const settings = {
        continued: i < runs.length - 1,
        width: options.width ?? this.wide,
        ...(options.align && { align: options.align }),
      }
      if (i === 0) doc.text(run, options.x ?? this.margin, doc.y, settings)
      else doc.text(run, settings)
    })
    doc.y += (options.gap ?? 0) * this.size
  }

  rule(): void {
    const { doc } = this
    doc
      .moveTo(this.margin, doc.y)
      .lineTo(doc.page.width - this.margin, doc.y)
      .lineWidth(0.7)
      .strokeColor(INK)
      .stroke()
    doc.y += 0.45 * this.size
  }

  /** Leaves room, in lines of the base size. */
  skip(lines: number): void {
    this.doc.y += lines * this.size
  }

  /** Begins a new page unless so much height, pt, is left on this one. */
  need(height: number): void {
    const { doc } = this
    if (doc.y + height <= doc.page.height - this.margin) return
    doc.addPage()
    doc.y = this.margin
  }

  /** A title with a text below it, and a word at the right. */
  row(title: string, text: string, when: string, colour: string): void {
    const { doc } = this
    const top = doc.y
    const side = this.wide * 0.31
    this.write(title, { weight: 700, width: this.wide - side - 10 })
    this.write(text, { colour: SOFT, scale: 0.86, width: this.wide - side - 10 })
    const end = doc.y
    doc.y = top
    this.write(when, { weight: 700, colour, x: this.margin + this.wide - side, width: side })
    doc.y = Math.max(end, doc.y) + 0.3 * this.size
    doc.x = this.margin
  }

  get pages(): number {
    return this.doc.bufferedPageRange().count
  }

  async end(): Promise<Buffer> {
    this.doc.end()
    await this.ended
    return Buffer.concat(this.parts)
  }
}
