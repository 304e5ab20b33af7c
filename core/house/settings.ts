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

/** A length of hair: "1.4 mm", or "0.055 in". */
export const lengthWords = (mm: number, unit: HouseSettings['length'], digits = 1): string =>
  unit === 'mm' ? `${mm.toFixed(digits)} mm` : `${(mm / INCH_MM).toFixed(digits + 2)} in`

/** A warmth: "45 °C", or "113 °F". */
export const warmthWords = (c: number, unit: HouseSettings['warmth']): string =>
  unit === 'C' ? `${Math.round(c)} °C` : `${Math.round(c * 1.8 + 32)} °F`

/** An amount of money in the house's currency: "€0.35". */
export const moneyWords = (amount: number, currency: HouseSettings['currency']): string =>
  new Intl.NumberFormat('en', { style: 'currency', currency }).format(amount)
