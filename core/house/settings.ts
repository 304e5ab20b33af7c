/** How a house is called and reached, and how it writes days, hours, money and measures. */

export const DATE_ORDERS = ['dmy', 'mdy', 'ymd'] as const
export type DateOrder = (typeof DATE_ORDERS)[number]
/** Currencies to choose among, by ISO 4217. */
export const CURRENCIES = [
  'EUR', 'USD', 'GBP', 'CHF', 'SEK', 'NOK', 'DKK', 'PLN', 'CZK', 'CAD', 'AUD', 'NZD', 'JPY', 'INR', 'BRL', 'ZAR',
] as const // prettier-ignore

export interface HouseSettings {
  readonly address: string
  readonly phone: string
  readonly currency: (typeof CURRENCIES)[number]
  readonly dates: DateOrder
  /** First day of the week; 0 is Sunday. */
  readonly firstDay: 0 | 1 | 6
  readonly clock: 12 | 24
  readonly length: 'mm' | 'inch'
  readonly warmth: 'C' | 'F'
}

/** Until a house says otherwise and no browser says how its people write. */
export const USUAL_SETTINGS: HouseSettings = {
  address: '',
  phone: '',
  currency: 'EUR',
  dates: 'dmy',
  firstDay: 1,
  clock: 24,
  length: 'mm',
  warmth: 'C',
}

const INCH_MM = 25.4

/** How a length of hair is headed: "Beard, mm". */
export const LENGTH_SIGNS = { mm: 'mm', inch: 'in' } as const
/** Digits that a length needs more in a unit, so that it tells as much. */
const MORE_DIGITS = { mm: 0, inch: 2 } as const
export const WARMTH_SIGNS = { C: '°C', F: '°F' } as const

/** How a house writes measures and money; lengths come in mm, warmth in °C. */
export interface Units {
  readonly length: HouseSettings['length']
  readonly warmth: HouseSettings['warmth']
  readonly currency: HouseSettings['currency']
}

/** A length in a unit, as a number. */
export const lengthIn = (mm: number, unit: Units['length']): number =>
  unit === 'mm' ? mm : mm / INCH_MM
/** mm of a length typed in a unit. */
export const lengthMm = (typed: number, unit: Units['length']): number =>
  unit === 'mm' ? typed : typed * INCH_MM
/** A length in a unit with so many digits (of mm), without the unit. */
export const lengthFigure = (mm: number, unit: Units['length'], digits = 1): string =>
  lengthIn(mm, unit).toFixed(digits + MORE_DIGITS[unit])
/** A length of hair: "1.4 mm", or "0.055 in". */
export const lengthWords = (mm: number, unit: Units['length'], digits = 1): string =>
  `${lengthFigure(mm, unit, digits)} ${LENGTH_SIGNS[unit]}`

/** A warmth in a unit, as a number. */
export const warmthIn = (c: number, unit: Units['warmth']): number =>
  unit === 'C' ? c : c * 1.8 + 32
/** °C of a warmth typed in a unit. */
export const warmthC = (typed: number, unit: Units['warmth']): number =>
  unit === 'C' ? typed : (typed - 32) / 1.8
/** A warmth: "45 °C", or "113 °F". */
export const warmthWords = (c: number, unit: Units['warmth']): string =>
  `${Math.round(warmthIn(c, unit))} ${WARMTH_SIGNS[unit]}`
/** How far a warmth may be off: "0.5 °C", or "0.9 °F". */
export const warmthStepWords = (c: number, unit: Units['warmth']): string =>
  `${Number((unit === 'C' ? c : c * 1.8).toFixed(1))} ${WARMTH_SIGNS[unit]}`

/** An amount of money in the house's currency: "€0.35". */
export const moneyWords = (amount: number, currency: Units['currency']): string =>
  new Intl.NumberFormat('en', { style: 'currency', currency }).format(amount)
/** How a currency is headed: "€". */
export const currencySign = (currency: Units['currency']): string =>
  new Intl.NumberFormat('en', { style: 'currency', currency })
    .formatToParts(0)
    .find((p) => p.type === 'currency')!.value
/** The unit that a figure of the house is kept in, as it is written: prices are in the house's own money. */
export const unitWords = (unit: string, currency: Units['currency']): string =>
  unit === PRICE ? currencySign(currency) : unit
/** Unit of a price among the constants. */
export const PRICE = 'money'
