/** How days, hours, money and measures are written on this screen: as the house says. */
import { useMemo } from 'react'
import { create } from 'zustand'
import {
  LENGTH_SIGNS,
  lengthFigure,
  lengthWords,
  moneyWords,
  unitWords,
  USUAL_SETTINGS,
  WARMTH_SIGNS,
  warmthStepWords,
  warmthWords,
  type HouseSettings,
} from '../../core/house/index.ts'
import { writeTimesAs } from '../../core/time/index.ts'

interface Shape {
  readonly settings: HouseSettings
  /** For dayjs: "D MMM YYYY". */
  readonly dayFormat: string
  /** "HH:mm" or "h:mm A". */
  readonly hourFormat: string
  readonly firstDayOfWeek: 0 | 1 | 6
}

const DAY_FORMATS = { dmy: 'D MMM YYYY', mdy: 'MMM D, YYYY', ymd: 'YYYY-MM-DD' } as const

const shapeOf = (settings: HouseSettings): Shape => ({
  settings,
  dayFormat: DAY_FORMATS[settings.dates],
  hourFormat: settings.clock === 24 ? 'HH:mm' : 'h:mm A',
  firstDayOfWeek: settings.firstDay,
})

export const useDateShape = create<Shape>(() => shapeOf(USUAL_SETTINGS))
export const useSettings = (): HouseSettings => useDateShape((s) => s.settings)

/** Measures and money as the house writes them; lengths come in mm, warmth in °C. */
const unitsOf = ({ length, warmth, currency }: HouseSettings) => ({
  length,
  warmth,
  currency,
  lengthSign: LENGTH_SIGNS[length],
  warmthSign: WARMTH_SIGNS[warmth],
  hair: (mm: number, digits?: number) => lengthWords(mm, length, digits),
  hairFigure: (mm: number, digits?: number) => lengthFigure(mm, length, digits),
  warm: (c: number) => warmthWords(c, warmth),
  warmStep: (c: number) => warmthStepWords(c, warmth),
  money: (amount: number) => moneyWords(amount, currency),
  unit: (unit: string) => unitWords(unit, currency),
})

export type UnitWords = ReturnType<typeof unitsOf>
export const useUnits = (): UnitWords => {
  const settings = useSettings()
  return useMemo(() => unitsOf(settings), [settings])
}

/** Takes over how the house writes. */
export function takeSettings(settings: HouseSettings): void {
  writeTimesAs(settings)
  useDateShape.setState(shapeOf(settings))
}

/** As this browser's people write: what a new house begins with. */
export function browserSettings(language = navigator.language): Partial<HouseSettings> {
  const parts = new Intl.DateTimeFormat(language).formatToParts(new Date(2026, 10, 25))
  const first = parts.find((p) => p.type !== 'literal')?.type
  const twelve = new Intl.DateTimeFormat(language, { hour: 'numeric' }).resolvedOptions().hour12
  const region = new Intl.Locale(language).maximize().region
  const american = region === 'US'
  return {
    dates: first === 'month' ? 'mdy' : first === 'year' ? 'ymd' : 'dmy',
    firstDay: american || region === 'CA' || region === 'JP' ? 0 : 1,
    clock: twelve ? 12 : 24,
    length: american ? 'inch' : 'mm',
    warmth: american ? 'F' : 'C',
    currency:
      (
        {
          US: 'USD',
          GB: 'GBP',
          CH: 'CHF',
          SE: 'SEK',
          NO: 'NOK',
          DK: 'DKK',
          CA: 'CAD',
          AU: 'AUD',
        } as const
      )[region as 'US'] ?? 'EUR',
  }
}
