import { oneJob, SERVICE_IDS, METHODS } from '../core/services/index.ts'
import { CHAIR_EVENT_KINDS, KINDS } from '../core/chair/index.ts'
import { READING_METHODS } from '../core/grain/index.ts'
import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { hostile } from './keys.ts'
import { eventSchema } from './chair.ts'
import { ROUTES, type Route } from './routes.ts'
import { askedSchema, newVisitSchema, notesSchema, readingSchema } from './schemas.ts'
import { hairReadingSchema, skinAnswerSchema } from './followUp.ts'

const valid = (schema: { isValidSync: (v: unknown, o: object) => boolean }, value: unknown) =>
  schema.isValidSync(value, { stripUnknown: false })

describe('what may come over the wire', () => {
  it('knows the services, methods and events that core knows', () => {
    for (const id of SERVICE_IDS)
      expect(
        valid(newVisitSchema, {
          ...{ id: randomUUID(), workerId: randomUUID(), slotAtMs: null },
          jobs: [oneJob(randomUUID(), id)],
        }),
      ).toBe(true)
    for (const kind of CHAIR_EVENT_KINDS)
      expect(
        valid(eventSchema, { id: randomUUID(), screen: randomUUID(), n: 1, kind, atMs: 1 }),
      ).toBe(true)
    for (const method of READING_METHODS) {
      expect(
        valid(readingSchema, {
          id: randomUUID(),
          zoneId: 'chin',
          point: [0, 0, 0],
          normal: [0, 0, 1],
          tangent: [0, -1, 0],
          method,
          atMs: 1,
        }),
      ).toBe(true)
    }
  })

  it('takes of a chair event what its kind tells, and nothing of another', () => {
    const vec = [0, 0, 1]
    const field: Record<string, unknown> = {
      ...{ beside: true, bladeId: 'shavette', why: 'tug', of: randomUUID(), zoneId: 'chin' },
      ...{ point: vec, normal: vec, tangent: vec, sizeMm: 2, did: ['cold'], contact: false },
      ...{ grade: 2, welt: true, rawC: 40, tempC: 41, withinC: 1, task: 'soak' },
      amendment: { text: 'less', after: 1, steps: [], lanes: [], covers: [] },
      patches: [{ zoneId: 'chin', point: vec }],
      zones: [{ zoneId: 'chin', redness: 1 }],
    }
    for (const kind of CHAIR_EVENT_KINDS) {
      const sent = (detail: object) =>
        valid(eventSchema, { id: randomUUID(), screen: randomUUID(), n: 1, kind, atMs: 1, detail })
      const takes: readonly string[] = KINDS[kind].takes
      const own = Object.fromEntries(takes.map((name) => [name, field[name]]))
      expect([kind, sent(own)]).toEqual([kind, true])
      for (const name of Object.keys(field).filter((n) => !takes.includes(n)))
        expect([kind, name, sent({ ...own, [name]: field[name] })]).toEqual([kind, name, false])
    }
  })

  it('takes jobs of known services, zones and methods', () => {
    const sent = (jobs: unknown) =>
      valid(newVisitSchema, {
        ...{ id: randomUUID(), workerId: randomUUID(), slotAtMs: null },
        jobs,
      })
    const job = oneJob(randomUUID(), 'dermaplane')
    for (const method of METHODS) expect(sent([{ ...job, method }])).toBe(true)
    expect(sent([{ ...job, zones: ['chin', 'back-upper-left'] }])).toBe(true)
    expect(sent([{ id: job.id, service: job.service }])).toBe(true)
    for (const wrong of [
      ...[[], null, 'face-shave', [null], [{ ...job, id: 'one' }]],
      ...[[{ ...job, service: 'haircut' }], [{ ...job, method: 'laser' }]],
      ...[[{ ...job, zones: [] }], [{ ...job, zones: ['chin-left'] }], [{ ...job, more: 1 }]],
      Array.from({ length: 13 }, () => ({ ...job, id: randomUUID() })),
    ])
      expect(sent(wrong)).toBe(false)
  })

  it('takes a map from names to things only with known names and whole things', () => {
    const notes = { lines: [], keptZones: [], strays: [], hair: {} }
    const sent = (hair: unknown) => valid(notesSchema, { ...notes, hair })
    expect(sent({ chin: { kind: 'terminal', grey: 'some' }, 'jaw-left': {} })).toBe(true)
    for (const wrong of [
      ...[null, [], 'chin', { tail: {} }, { chin: null }, { chin: { kind: 'fur' } }],
      ...[{ chin: { colour: 'red' } }, { chin: [] }],
    ])
      expect(sent(wrong)).toBe(false)
  })

  it('takes whole grades from 0 to 4 and nothing else', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.integer({ min: -3, max: 9 }),
          fc.double(),
          fc.constant('2x'),
          fc.constant(null),
        ),
        (redness) => {
          const ok = valid(skinAnswerSchema, {
            atMs: 1,
            zones: [{ zoneId: 'chin', redness, bumps: 0 }],
          })
          expect(ok).toBe(
            typeof redness === 'number' &&
              Number.isInteger(redness) &&
              redness >= 0 &&
              redness <= 4,
          )
        },
      ),
    )
  })

  it('wants a length with a measurement only, and days that exist', () => {
    const hair = (over: object) =>
      valid(hairReadingSchema, { id: randomUUID(), kind: 'felt', date: '2026-05-01', ...over })
    expect(hair({})).toBe(true)
    expect(hair({ kind: 'measured' })).toBe(false)
    expect(hair({ kind: 'measured', lengthMm: 1.2 })).toBe(true)
    expect(hair({ date: '2026-13-01' })).toBe(false)
    expect(hair({ date: 'yesterday' })).toBe(false)
  })

  it('turns away names of the language itself, however deep', () => {
    for (const key of ['valueOf', 'toString', 'hasOwnProperty', 'constructor', 'prototype'])
      expect(hostile({ spots: [{ id: { [key]: 1 } }] })?.path).toBe(key)
    expect(hostile(JSON.parse('{"a":{"__proto__":1}}'))?.path).toBe('__proto__')
    expect(hostile({ answers: { infection: { yes: false } }, name: 'valueOf' })).toBeUndefined()
  })

  it('never throws anything but a refusal, whatever is sent', () => {
    fc.assert(
      fc.property(fc.anything(), (value) => {
        // What holds a name of the language itself is turned away before a schema sees it.
        if (hostile(value) !== undefined) return
        expect(typeof valid(askedSchema, value)).toBe('boolean')
      }),
      { numRuns: 3000 },
    )
  })
})

describe('the table of routes', () => {
  it('has each address and verb once, with a schema for every parameter', () => {
    const all = Object.values(ROUTES).map((r) => `${r.method} ${r.path}`)
    expect(new Set(all).size).toBe(all.length)
    for (const r of Object.values<Route>(ROUTES)) {
      expect(r.path.startsWith('/api/')).toBe(true)
      if (r.path.includes(':')) expect(r.params).toBeDefined()
      // A picture comes as a form, which multer reads.
      const form = r.path.endsWith('/photos')
      if ((r.method === 'POST' && !form) || r.method === 'PATCH') expect(r.body).toBeDefined()
    }
  })
})
