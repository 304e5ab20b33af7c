/** How days and hours are written on this screen: by the house, else as the browser has it. */
import { create } from 'zustand'

interface Shape {
  /** For dayjs: "D MMM YYYY". */
  readonly dayFormat: string
  readonly firstDayOfWeek: 0 | 1 | 6
}

export const useDateShape = create<Shape>(() => ({
  dayFormat: 'D MMM YYYY',
  firstDayOfWeek: 1,
}))
