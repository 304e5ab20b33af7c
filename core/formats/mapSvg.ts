/** A map as a picture in lines: the flat views with an arrow for each zone, as SVG. */
import { LIGHT, ON_SKIN } from '../palette.ts'
import {
  type Vec3,
  FLAT_HALF,
  projectPoint,
  VIEWS,
  viewAxes,
  type FlatView,
  type ViewId,
} from '../head/index.ts'
import { isSkin, ZONE_IDS, type ZoneId } from '../zones/index.ts'

/** An arrow to draw on the skin. */
export interface MapArrow {
  readonly zoneId: ZoneId
  readonly point: Vec3
  readonly normal: Vec3
  /** Unit tangent, root to tip. */
  readonly direction: Vec3
  readonly lengthMm: number
  /** Drawn dashed: not read here itself. */
  readonly unsure?: boolean
}

/** A whorl to draw. */
export interface MapSign {
  readonly point: Vec3
  readonly normal: Vec3
  readonly turn: 'clockwise' | 'anticlockwise' | 'star'
}

/** What is drawn on the flat views. */
export interface MapDrawing {
  readonly arrows: readonly MapArrow[]
  readonly signs: readonly MapSign[]
  /** Lines over the skin. */
  readonly lines: readonly (readonly { readonly point: Vec3; readonly normal: Vec3 }[])[]
}

/** Looks this far away from the viewer at most. */
const LEAST_FACING = 0.15

const f1 = (x: number) => x.toFixed(1)

/** The parts of one flat view, in mm from its top left corner, ready for a `path` each. */
export interface FlatParts {
  readonly widthMm: number
  readonly heightMm: number
  readonly silhouette: string
  readonly borders: string
  readonly parts: string
  readonly arrows: readonly {
    readonly d: string
    readonly head: string
    readonly unsure: boolean
  }[]
  readonly signs: readonly string[]
  readonly lines: string
}

/** Path data of rings of outline points. */
export const ringsPath = (list: readonly (readonly number[])[]): string =>
  list
    .map((ring) => {
      let d = ''
      for (let i = 0; i < ring.length; i += 2)
        d += `${i === 0 ? 'M' : 'L'}${ring[i]} ${ring[i + 1]}`
      return `${d}Z`
    })
    .join('')

/**
 * Draws onto a flat view.
 * @param shows true when a place can be seen in the view, hidden surfaces taken into account
 */
export function flatParts(
  view: FlatView,
  drawing: MapDrawing,
  shows: (view: ViewId, point: Vec3, normal: Vec3) => boolean,
): FlatParts {
  const { yawDeg, pitchDeg } = VIEWS[view.id]
  const axes = viewAxes(yawDeg, pitchDeg)
  const at = (p: Vec3): readonly [number, number] => {
    const [right, up] = projectPoint(axes, p)
    return [right + FLAT_HALF.width, FLAT_HALF.height - up]
  }
  const facing = (n: Vec3) =>
    axes.toward[0] * n[0] + axes.toward[1] * n[1] + axes.toward[2] * n[2] > LEAST_FACING
  const seen = (p: { point: Vec3; normal: Vec3 }) =>
    facing(p.normal) && shows(view.id, p.point, p.normal)
  const arrows = drawing.arrows.filter(seen).flatMap((a) => {
    const end = (s: number): Vec3 => [
      a.point[0] + s * a.lengthMm * a.direction[0],
      a.point[1] + s * a.lengthMm * a.direction[1],
      a.point[2] + s * a.lengthMm * a.direction[2],
    ]
    const [x0, y0] = at(end(-0.5))
    const [x1, y1] = at(end(0.5))
    const length = Math.hypot(x1 - x0, y1 - y0)
    if (length < 2.5) return []
    const [ux, uy] = [(x1 - x0) / length, (y1 - y0) / length]
    const tip = Math.min(5, length * 0.5)
    const corner = (s: number) =>
      `${f1(x1 - ux * tip - s * uy * tip * 0.5)} ${f1(y1 - uy * tip + s * ux * tip * 0.5)}`
    return [
      {
        d: `M${f1(x0)} ${f1(y0)}L${f1(x1 - ux * tip * 0.8)} ${f1(y1 - uy * tip * 0.8)}`,
        head: `M${f1(x1)} ${f1(y1)}L${corner(1)}L${corner(-1)}Z`,
        unsure: a.unsure ?? false,
      },
    ]
  })
  const signs = drawing.signs.filter(seen).map((s) => {
    const [x, y] = at(s.point)
    if (s.turn === 'star') {
      return Array.from({ length: 6 }, (_, i) => {
        const a = (i * Math.PI) / 3
        return `M${f1(x + 2 * Math.cos(a))} ${f1(y + 2 * Math.sin(a))}L${f1(x + 7 * Math.cos(a))} ${f1(y + 7 * Math.sin(a))}`
      }).join('')
    }
    let d = ''
    for (let i = 0; i <= 30; i++) {
      const r = 7 * (0.12 + (0.88 * i) / 30)
      const a = (s.turn === 'clockwise' ? 1 : -1) * (i / 30) * 3 * Math.PI
      d += `${i === 0 ? 'M' : 'L'}${f1(x + r * Math.cos(a))} ${f1(y + r * Math.sin(a))}`
    }
    return d
  })
  let lines = ''
  for (const line of drawing.lines) {
    let pen = false
    for (const p of line) {
      if (!seen(p)) {
        pen = false
        continue
      }
      const [x, y] = at(p.point)
      lines += `${pen ? 'L' : 'M'}${f1(x)} ${f1(y)}`
      pen = true
    }
  }
  return {
    widthMm: view.widthMm,
    heightMm: view.heightMm,
    silhouette: ringsPath(view.silhouette),
    borders: view.zones
      .filter((z) => isSkin(ZONE_IDS[z.zone]!))
      .map((z) => ringsPath(z.rings))
      .join(''),
    parts: view.zones
      .filter((z) => !isSkin(ZONE_IDS[z.zone]!))
      .map((z) => ringsPath(z.rings))
      .join(''),
    arrows,
    signs,
    lines,
  }
}

const escapeXml = (s: string) =>
  s
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;')

/** Views side by side as one SVG document, 1 unit to the mm. */
export function mapSvg(
  views: readonly { name: string; parts: FlatParts }[],
  title: string,
): string {
  const gap = 10
  const band = 14
  const width = views.reduce((s, v) => s + v.parts.widthMm + gap, -gap)
  const height = Math.max(...views.map((v) => v.parts.heightMm)) + band
  let x = 0
  const body = views
    .map(({ name, parts }) => {
      const at = x
      x += parts.widthMm + gap
      return (
        `<g transform="translate(${at} 0)"><text x="${parts.widthMm / 2}" y="10" text-anchor="middle" font-size="9">${escapeXml(name)}</text>` +
        `<g transform="translate(0 ${band})"><path d="${parts.silhouette}" fill="none" stroke="${LIGHT.ink}" stroke-width="0.8"/>` +
        `<path d="${parts.parts}" fill="${LIGHT.ink}" fill-opacity="0.08" stroke="${LIGHT.ink}" stroke-width="0.3"/>` +
        `<path d="${parts.borders}" fill="none" stroke="${LIGHT.ink}" stroke-opacity="0.4" stroke-width="0.3"/>` +
        parts.arrows
          .map(
            (a) =>
              `<path d="${a.d}" fill="none" stroke="${LIGHT.deep}" stroke-width="1.6"${a.unsure ? ' stroke-dasharray="2.5 2"' : ''}/><path d="${a.head}" fill="${LIGHT.deep}"/>`,
          )
          .join('') +
        parts.signs
          .map((d) => `<path d="${d}" fill="none" stroke="${ON_SKIN.coral}" stroke-width="1.2"/>`)
          .join('') +
        (parts.lines
          ? `<path d="${parts.lines}" fill="none" stroke="${ON_SKIN.coral}" stroke-width="1.2"/>`
          : '') +
        `</g></g>`
      )
    })
    .join('')
  return `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}mm" height="${height}mm" font-family="sans-serif" fill="${LIGHT.ink}"><title>${escapeXml(title)}</title>${body}</svg>\n`
}
