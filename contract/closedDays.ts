/** Days on which a house is closed, as they are sent. */
import * as y from 'yup'
import { mapOf, shaped } from './parts.ts'
import { isClosedDate } from '../core/time/index.ts'

export const closedDays = y
  .object({
    weekdays: y
      .array()
      .of(y.number().integer().min(0).max(6).required())
      .max(6, 'A house is open on one day of the week at least.')
      .required(),
    dates: y
      .array()
      .of(
        y
          .string()
          .required()
          .test('date', 'A closed day is a date such as 12-24 or 2026-12-24.', (d) =>
            isClosedDate(d),
          ),
      )
      .max(200)
      .required(),
    hours: mapOf<string, readonly [number, number]>(
      shaped(/^[0-6]$/),
      y
        .tuple([y.number().min(0).max(24).required(), y.number().min(0).max(24).required()])
        .test('order', 'A day opens before it closes.', (h) => h === undefined || h[0] < h[1])
        .defined() as never,
      'hours by day of the week',
    ).optional(),
  })
  .noUnknown()
