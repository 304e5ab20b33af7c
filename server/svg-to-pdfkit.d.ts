/** Draws SVG onto a PDFKit page (what is used of it). */
declare module 'svg-to-pdfkit' {
  export default function svgToPdf(
    doc: PDFKit.PDFDocument,
    svg: string,
    x: number,
    y: number,
    options?: {
      width?: number
      height?: number
      preserveAspectRatio?: string
      assumePt?: boolean
      fontCallback?: () => string
    },
  ): void
}
