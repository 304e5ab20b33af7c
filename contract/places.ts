/** When workers work and what places a house has, as they are sent. */
import * as y from 'yup'
import { hoursProblem } from '../core/week/index.ts'
import { mapOf, shaped } from './parts.ts'

/** Hours of a worker by day of the week. */
export const workerHours = mapOf<string, readonly (readonly number[])[]>(
  shaped(/^[0-6]$/),
  y
    .array()
    .of(y.array().of(y.number().min(0).max(24).required()).length(2).required())
    .max(6)
    .required(),
  'hours by day of the week',
).test({
  name: 'hours',
  test(hours, { createError }) {
    const wrong = hours && hoursProblem(hours)
    return wrong ? createError({ message: wrong }) : true
  },
})

/** Places of a house. */
export const studioSchema = y
  .object({
    chairs: y.number().integer().min(0).max(50).required(),
    beds: y.number().integer().min(0).max(50).required(),
    towels: y.number().integer().min(0).max(200).required(),
    blades: mapOf<string, number>(
      shaped(/^[a-z-]{1,40}$/),
      y.number().integer().min(0).max(10_000).required(),
      'blades of a kind',
    ).required(),
    reminders: y
      .array()
      .of(y.number().integer().min(1).max(336).required())
      .max(4, 'at most four reminders')
      .default([]),
  })
  .noUnknown()
