/** Tests are told when the server answers what its contract does not say. */
import express from 'express'
import request from 'supertest'
import type { AnswerOf } from '../../contract/routes.ts'
import { mount } from './mount.ts'

const GOOD = { ok: true, version: '1', clients: 2, visits: 3 } as const
const faults: string[] = []

async function answered(answer: unknown, checked = true) {
  const app = express()
  if (checked) app.enable('check answers')
  mount(app, 'health', () => Promise.resolve(answer as AnswerOf<'health'>))
  app.use((error: Error, _q: unknown, response: express.Response, _next: unknown) => {
    faults.push(error.message)
    response.status(500).json({})
  })
  return request(app).get('/api/health')
}

describe('an answer', () => {
  beforeEach(() => faults.splice(0))

  it('goes out as it is when it is what the contract says', async () => {
    expect((await answered(GOOD)).body).toEqual(GOOD)
    expect(faults).toEqual([])
  })

  const { visits: _visits, ...short } = GOOD
  it.each([
    ['a field too many', { ...GOOD, colour: 'red' }, /health.*colour/],
    ['a field too few', short, /health.*visits/],
    ['another kind', { ...GOOD, clients: '2' }, /health.*clients/],
    // JSON has no such number: it would reach the screen as null.
    ['no number', { ...GOOD, clients: Number.NaN }, /health.*clients/],
    ['nothing', undefined, /health/],
  ])('with %s is a fault of the server', async (_what, answer, says) => {
    expect((await answered(answer)).status).toBe(500)
    expect(faults.join()).toMatch(says)
  })

  it('is not looked at again outside tests', async () => {
    expect((await answered(short, false)).body).toEqual(short)
  })
})
