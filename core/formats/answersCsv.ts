/** Looks at the skin and readings of hair as CSV (RFC 4180): one line each, for a spreadsheet or a statistics program. */
import type { Figures } from '../house/index.ts'
import { DRYNESS_WORDS, type HairReading, type SkinAnswer, momentHours } from '../looks/index.ts'
import type { ServiceId } from '../services/index.ts'
import { csvOf } from './csvOut.ts'

const COLUMNS = [
  'visit',
  'service',
  'ended_utc',
  'what',
  'hours_after',
  'read_utc',
  'zone',
  'redness_0_4',
  'bumps',
  'pustules',
  'load',
  'stinging_0_10',
  'itch_0_10',
  'dryness',
  'length_mm',
  'method',
  'told_by',
  'words',
] as const

export interface CsvVisit {
  readonly id: string
  readonly service: ServiceId
  readonly endedAtMs: number | null
  readonly loads: Readonly<Record<string, number>> | null
  readonly answers: readonly SkinAnswer[]
  readonly hair: readonly HairReading[]
}

const iso = (ms: number) => new Date(ms).toISOString()

/** Zones that were worked and not named in an answer were clear: they have a line with zeros. */
export function answersCsv(figures: Figures, visits: readonly CsvVisit[]): string {
  const rows: Partial<Record<(typeof COLUMNS)[number], string | number>>[] = []
  for (const v of visits) {
    if (v.endedAtMs === null) continue
    const base = { visit: v.id, service: v.service, ended_utc: iso(v.endedAtMs) }
    for (const a of v.answers) {
      const zones = new Set([...Object.keys(v.loads ?? {}), ...a.zones.map((z) => z.zoneId)])
      for (const zone of zones) {
        const told = a.zones.find((z) => z.zoneId === zone)
        rows.push({
          ...base,
          what: 'skin',
          hours_after: momentHours(figures, a.moment),
          read_utc: iso(a.atMs),
          zone,
          redness_0_4: told?.redness ?? 0,
          bumps: told?.bumps ?? 0,
          pustules: told?.pustules ?? 0,
          load: Number((v.loads?.[zone] ?? 0).toFixed(3)),
          stinging_0_10: a.feeling?.stinging ?? '',
          itch_0_10: a.feeling?.itch ?? '',
          dryness: a.feeling?.dryness === undefined ? '' : DRYNESS_WORDS[a.feeling.dryness]!,
          told_by: a.source ?? 'seen',
          words: a.feeling?.words ?? '',
        })
      }
    }
    for (const h of v.hair) {
      rows.push({
        ...base,
        what: h.kind,
        hours_after: Math.round(h.days * 24),
        read_utc: iso(h.atMs),
        zone: h.zoneId ?? '',
        length_mm: h.lengthMm ?? '',
        method: h.method ?? '',
      })
    }
  }
  return csvOf(COLUMNS, rows)
}
