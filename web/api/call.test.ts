import { address, call, CallProblem, isRefused } from './call.ts'

const real = globalThis.fetch
afterEach(() => {
  globalThis.fetch = real
})
const answer = (status: number, body: unknown) => {
  globalThis.fetch = () =>
    Promise.resolve(
      new Response(typeof body === 'string' ? body : JSON.stringify(body), { status }),
    )
}

describe('asking the server', () => {
  it('fills an address, whatever is in it', () => {
    expect(address('client', { id: 'a/b c' })).toBe('/api/clients/a%2Fb%20c')
    expect(address('saveSkinAnswer', { id: 'x', moment: '24h' })).toBe('/api/visits/x/skin/24h')
  })

  it('gives what came', async () => {
    answer(200, { ok: true, version: '1', clients: 2, visits: 3 })
    expect(await call('health')).toMatchObject({ clients: 2 })
  })

  it('gives the server’s own sentence when it refuses', async () => {
    answer(409, { status: 409, code: 'gap', detail: 'Event 3 came before event 2.' })
    await expect(call('health')).rejects.toMatchObject({
      status: 409,
      code: 'gap',
      message: 'Event 3 came before event 2.',
    })
  })

  it('says something a person can act on when the answer is not readable or none comes', async () => {
    answer(502, 'Bad Gateway')
    await expect(call('health')).rejects.toThrow('no readable answer')
    globalThis.fetch = () => Promise.reject(new TypeError('failed'))
    const error = await call('health').catch((e: unknown) => e)
    expect(error).toBeInstanceOf(CallProblem)
    expect(error).toMatchObject({ status: 0, code: 'unreachable' })
    expect((error as Error).message).toContain('still here')
  })
})

describe('a refusal', () => {
  const write = '0b7e1c9e-7a52-4a0e-9a51-0d3d7c3f6b11'
  const asked = (status: number, body: object) => {
    answer(status, body)
    return call('health').catch((e: unknown) => e)
  }
  it('is one only where the house gives back the number of the write', async () => {
    expect(
      isRefused(await asked(409, { status: 409, code: 'gap', detail: 'x', write }), write),
    ).toBe(true)
    // Another program on the port, a page in between, another write.
    expect(
      isRefused(await asked(404, { status: 404, code: 'not-found', detail: 'x' }), write),
    ).toBe(false)
    answer(404, '<h1>Not found</h1>')
    expect(isRefused(await call('health').catch((e: unknown) => e), write)).toBe(false)
    expect(
      isRefused(await asked(409, { status: 409, code: 'gap', detail: 'x', write: 'other' }), write),
    ).toBe(false)
  })

  it.each([
    [500, 'unexpected'],
    [507, 'disk-full'],
    [401, 'sign-in'],
    [401, 'locked'],
    [429, 'wait'],
    [421, 'not-this-house'],
  ])('is none while the house only waits: %d %s', async (status, code) => {
    expect(isRefused(await asked(status, { status, code, detail: 'x', write }), write)).toBe(false)
  })
})
