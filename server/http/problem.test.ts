/** Whatever is thrown goes out as problem details (RFC 9457), with a sentence and what became of the data. */
import express from 'express'
import request from 'supertest'
import type { Problem } from '../../contract/types.ts'
import { DomainError } from '../../core/errors.ts'
import { answerProblem, HttpProblem, notFound, unknownRoute } from './problem.ts'

const told: unknown[] = []
const thrown = (error: unknown) => {
  const app = express()
  app.use((req, _res, next) => {
    req.log = { error: (what: unknown) => told.push(what) } as never
    next()
  })
  app.get('/api/x', () => {
    throw error
  })
  app.use('/api', unknownRoute)
  app.use(answerProblem)
  return request(app)
}
const answer = async (error: unknown, path = '/api/x') => {
  const r = await thrown(error).get(path)
  expect(r.type).toBe('application/problem+json')
  // Superagent reads only what it knows.
  return { status: r.status, body: JSON.parse(r.text) as Problem }
}
beforeEach(() => (told.length = 0))

describe('problem details', () => {
  it('hold type, title, status, code and a sentence', async () => {
    const { status, body } = await answer(notFound('That visit'))
    expect(status).toBe(404)
    expect(body).toEqual({
      type: 'urn:slow-tide:not-found',
      title: 'Not found',
      status: 404,
      code: 'not-found',
      detail: 'That visit is not here. It may have been erased.',
    })
  })

  it('name each field that was wrong', async () => {
    const errors = [{ field: 'name', message: 'Name is missing.' }] as never
    const { body } = await answer(new HttpProblem(422, 'invalid', 'Mend it.', errors))
    expect(body.errors).toEqual(errors)
  })

  it('tell what no longer fits from what is wrong', async () => {
    expect((await answer(new DomainError('gap', 'x'))).status).toBe(409)
    expect((await answer(new DomainError('not-possible', 'x'))).status).toBe(409)
    expect((await answer(new DomainError('several-jobs', 'x'))).status).toBe(422)
    expect((await answer(new DomainError('gap', 'An event is missing.'))).body.detail).toBe(
      'An event is missing.',
    )
  })

  it.each([
    [413, 'too-large', /Nothing was changed/],
    [404, 'not-found', /Reload/],
    [400, 'not-json', /Nothing was changed/],
  ])('say in words what Express means by %d', async (status, code, words) => {
    const { body } = await answer(Object.assign(new Error('express'), { status }))
    expect([body.status, body.code]).toEqual([status, code])
    expect(body.detail).toMatch(words)
  })

  it('give nothing away of what went wrong inside, and write it down', async () => {
    const inside = new Error('SQLITE_MISUSE: /srv/data/slow-tide.sqlite')
    const { status, body } = await answer(inside)
    expect(status).toBe(500)
    expect(JSON.stringify(body)).not.toContain('SQLITE')
    expect(body.detail).toContain('What was saved before is kept')
    expect(told).toEqual([{ err: inside }])
  })

  it('do not fill the log with what people mistype', async () => {
    await answer(notFound('That client'))
    expect(told).toEqual([])
  })

  it('answer an address that is none of the API’s', async () => {
    const { status, body } = await answer(undefined, '/api/nothing')
    expect([status, body.code]).toEqual([404, 'no-such-route'])
    expect(body.detail).toContain('GET')
  })
})
