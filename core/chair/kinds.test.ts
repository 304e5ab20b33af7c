import { DEFAULTS } from '../house/index.ts'
import { SKIN } from '../testing/client.ts'
import { planInput } from '../testing/plan.ts'
import { makePlan } from '../plan/index.ts'
import type { ChairDetail, ChairEvent } from './events.ts'
import { CHAIR_EVENT_KINDS, KINDS, type ChairEventKind } from './kinds.ts'
import { play } from './play.ts'
import { admit } from './rules.ts'
import { advance, replayLive } from './service.ts'
import { begin, type Live } from './state.ts'

const PLAN = makePlan(planInput({ skin: SKIN }))
const event = (kind: ChairEventKind, seq: number, detail?: ChairDetail): ChairEvent => ({
  ...{ id: `e${seq}`, screen: 's', n: seq, atMs: 1000 * seq, kind, seq },
  ...(detail && { detail }),
})
const STARTED = advance(begin(PLAN), event('started', 1))
const FINISHED = replayLive(
  PLAN,
  play(DEFAULTS, PLAN, {
    ...{ startMs: 0, bladeLife: 400, screen: 's' },
    newId: (() => {
      let n = 0
      return () => `p${++n}`
    })(),
  }),
)
const refusal = (live: Live, kind: ChairEventKind): string => {
  try {
    admit(DEFAULTS, live, event(kind, live.state.seq + 1))
    return ''
  } catch (error) {
    return (error as Error).message
  }
}

describe('the kinds of chair events', () => {
  it('have words of their own, and tell only what an event can hold', () => {
    const words = CHAIR_EVENT_KINDS.map((k) => KINDS[k].words)
    expect(new Set(words).size).toBe(words.length)
    expect(CHAIR_EVENT_KINDS).toHaveLength(30)
    for (const kind of CHAIR_EVENT_KINDS)
      expect(new Set(KINDS[kind].takes).size).toBe(KINDS[kind].takes.length)
  })

  it.each(CHAIR_EVENT_KINDS.filter((k) => k !== 'started'))(
    '%s needs a service that has begun',
    (kind) => {
      expect(() => advance(begin(PLAN), event(kind, 1))).toThrow('not been started')
    },
  )

  it('start a service once', () => {
    expect(refusal(STARTED, 'started')).toMatch(/already been started/)
    expect(refusal(FINISHED, 'started')).toMatch(/already been started/)
  })

  it.each(CHAIR_EVENT_KINDS.filter((k) => k !== 'started' && k !== 'taken-back'))(
    '%s adds nothing to a finished service',
    (kind) => {
      expect(() => advance(FINISHED, event(kind, FINISHED.state.seq + 1))).toThrow('is finished')
    },
  )

  it('may happen in a pause where something is found or the rest is changed, and work may not', () => {
    const paused = advance(STARTED, event('paused', 2))
    const free: ChairEventKind[] = ['resumed', 'nick', 'redness', 'amended']
    for (const kind of CHAIR_EVENT_KINDS) {
      const said = refusal(paused, kind)
      const allowed = KINDS[kind].inAPause?.({ id: 'e', atMs: 0 }) === true
      if (!allowed) expect(said).toMatch(/paused/)
      else expect(said).not.toMatch(/Go on first/)
    }
    for (const kind of free) expect(refusal(paused, kind)).toBe('')
    // News comes in a pause, a second pause of the worker's own does not.
    expect(KINDS.paused.inAPause!({ id: 'n', atMs: 0, reason: 'redness 4' })).toBe(true)
    expect(KINDS.paused.inAPause!({ id: 'n', atMs: 0 })).toBe(false)
  })

  it('leave everything else of the state as it was (frozen in, new out)', () => {
    const frozen = { ...STARTED, state: Object.freeze({ ...STARTED.state }) }
    const next = advance(frozen, event('soaked', 2))
    expect(next.state).toEqual({
      ...STARTED.state,
      ...{ soakedAtMs: 2000, seq: 2, lastAtMs: 2000, spentMs: 1000 },
    })
    const nick = advance(frozen, event('nick', 2, { zoneId: 'chin', sizeMm: 2 }))
    expect(nick.state.nicks).toEqual([
      { id: 'e2', stepId: PLAN.steps[0]!.id, atMs: 2000, zoneId: 'chin', sizeMm: 2 },
    ])
    expect(STARTED.state.nicks).toEqual([])
  })

  it('are all met by a whole service or told of in words that say what was wrong', () => {
    for (const kind of CHAIR_EVENT_KINDS) {
      const said = refusal(STARTED, kind)
      if (said) expect(said).toMatch(/^[A-Z].*\.$/s)
    }
  })

  it('take no time where they only put in order what nobody ended', () => {
    expect(KINDS['ended-late'].late).toBe(true)
    const late = advance(STARTED, event('ended-late', 2))
    expect(late.state.finishedAtMs).toBe(STARTED.state.lastAtMs)
    expect(late.state.spentMs).toBe(STARTED.state.spentMs)
    expect(Object.values(late.state.outcomes).every((o) => o === 'skipped')).toBe(true)
  })
})
