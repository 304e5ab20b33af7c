import { makePlan, withJobs } from '../plan/index.ts'
import { planInput } from '../testing/plan.ts'
import { checkSitting, leadJob, oneJob, type Job } from './job.ts'
import { METHODS } from './method.ts'

const SHAVE = oneJob('a', 'face-shave')
const LIP: Job = { id: 'b', service: 'facial-razor', zones: ['upper-lip-left'], method: 'guarded' }

describe('the jobs of a visit', () => {
  it('are a whole service with a blade unless something else is said', () => {
    expect(SHAVE).toEqual({ id: 'a', service: 'face-shave', zones: null, method: 'blade' })
    expect(METHODS[0]).toBe('blade')
  })

  it('are known by the first; a visit without any is refused in words', () => {
    expect(leadJob([SHAVE, LIP])).toBe(SHAVE)
    expect(() => leadJob([])).toThrow('something that is to be done')
  })

  it('limit a plan to their zones, and every lane, zone and step of it is theirs', () => {
    const job: Job = { ...SHAVE, zones: ['chin', 'jaw-left'] }
    const plan = makePlan(planInput({ jobs: [job] }))
    expect(new Set(plan.zones.map((z) => z.zoneId))).toEqual(new Set(job.zones))
    expect(plan.jobs).toEqual([job])
    const ids = [...plan.zones, ...plan.lanes].map((x) => x.jobId)
    expect(new Set(ids)).toEqual(new Set(['a']))
    for (const step of plan.steps) expect(step.jobId).toBe(step.zoneId ? 'a' : undefined)
  })

  it('are given to a plan that was kept before there were any', () => {
    const plan = makePlan(planInput({ jobs: [SHAVE] }))
    const { jobs: _, ...kept } = plan
    const old = {
      ...kept,
      zones: kept.zones.map(({ jobId: _id, ...z }) => z),
      lanes: kept.lanes.map(({ jobId: _id, ...l }) => l),
      steps: kept.steps.map(({ jobId: _id, ...s }) => s),
    }
    expect(withJobs(old as never, [SHAVE])).toEqual(plan)
    // One that has its own keeps them.
    expect(withJobs(plan, [LIP])).toBe(plan)
  })
})

describe('jobs of one sitting', () => {
  it('go by ids of their own: two by one id are refused', () => {
    const jobs = [
      { id: 'a', service: 'face-shave', method: 'blade', zones: null },
      { id: 'a', service: 'brow-tidy', method: 'tweezers', zones: ['glabella'] },
    ] as const
    expect(() => checkSitting(jobs)).toThrow(/by one id/)
    expect(() => checkSitting([jobs[0], { ...jobs[1], id: 'b' }])).not.toThrow()
  })
})
