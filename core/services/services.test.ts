import { CONSTANT_REGISTER } from '../register/index.ts'
import { DEFAULTS, DEFAULT_SCHOOLS } from '../house/index.ts'
import { BLADES } from '../kit/index.ts'
import { makePlan } from '../plan/index.ts'
import { closingSteps, preparationSteps } from '../plan/routine.ts'
import { RULES } from '../screening/index.ts'
import { planInput } from '../testing/plan.ts'
import { ZONE_FACTS, isBody, zoneStem } from '../zones/index.ts'
import { isBodyService, SERVICE_IDS, SERVICES, serviceZones, workedShare } from './list.ts'

const RULE_IDS = new Set(RULES.map((r) => r.id))
const PLAIN = SERVICE_IDS.filter((id) => !('alongLines' in SERVICES[id] || 'edges' in SERVICES[id]))

describe('the services', () => {
  it.each(SERVICE_IDS)('%s answers every question that stations ask of it', (id) => {
    const service = SERVICES[id]
    expect(service.id).toBe(id)
    const zones = serviceZones(id)
    expect(zones.length).toBeGreaterThan(0)
    for (const zone of zones) {
      // A service lies on one ground, on skin that the trade has words for.
      expect(isBody(zone)).toBe(isBodyService(id))
      expect(ZONE_FACTS[zoneStem(zone)].stretch).not.toBe('')
      expect(workedShare(id, zone)).toBeGreaterThan(0)
      expect(workedShare(id, zone)).toBeLessThanOrEqual(1)
    }
    expect(service.blades.length).toBeGreaterThan(0)
    for (const blade of service.blades) expect(BLADES).toHaveProperty(blade)
    // What differs from the family speaks of a question that is asked.
    for (const rule of Object.keys(service.asking)) expect(RULE_IDS).toContain(rule)
    expect(service.views.length > 0).toBe(!isBodyService(id))
    const slots = CONSTANT_REGISTER.find((area) => area.id === 'services')!
    expect(Object.values(slots.constants)).toContain(service.slotMin)
  })

  it.each(SERVICE_IDS)('%s begins with clean hands and ends with a look and balm', (id) => {
    const before = preparationSteps(DEFAULTS, id, DEFAULT_SCHOOLS, true)
    const after = closingSteps(DEFAULTS, id, true)
    expect(before[0]!.id).toBe('prepare:cleanse')
    expect(new Set([...before, ...after].map((s) => s.id)).size).toBe(before.length + after.length)
    expect([...before, ...after].every((s) => s.minutes > 0)).toBe(true)
    expect(before.some((s) => s.lays === 'lather')).toBe(SERVICES[id].lather)
    // What fuzz left comes off before anybody looks.
    const off = SERVICES[id].family === 'fuzz' ? ['close:off'] : []
    expect(after.slice(0, off.length + 1).map((s) => s.id)).toEqual([...off, 'check'])
    expect(after.at(-1)!.id).toBe('close:soothe')
    // Who must have nothing scented gets nothing scented.
    expect(after.at(-1)!.text).toContain('scent')
  })

  it.each(PLAIN)('%s comes to a plan of its own zones and blades', (id) => {
    const plan = makePlan(planInput({ service: id }))
    expect(plan.lanes.length).toBeGreaterThan(0)
    for (const lane of plan.lanes) {
      expect(serviceZones(id)).toContain(lane.zoneId)
      expect(SERVICES[id].blades).toContain(lane.bladeId)
    }
  })

  it('name no service twice, and no zone of another ground', () => {
    expect(new Set(SERVICE_IDS).size).toBe(SERVICE_IDS.length)
    expect(new Set(SERVICE_IDS.map((id) => SERVICES[id].name)).size).toBe(SERVICE_IDS.length)
  })
})

describe('a back and chest shave', () => {
  const planFor = (c: Parameters<typeof planInput>[0] = {}) =>
    makePlan(planInput({ service: 'back-and-chest', ...c }))
  const ways = (plan: ReturnType<typeof planFor>) => [...new Set(plan.lanes.map((l) => l.relation))]

  it('goes with the grain, then across if the skin allows, never against (common practice)', () => {
    expect(ways(planFor({ skin: { reactivity: 'tough' } }))).toEqual(
      expect.arrayContaining(['with', 'across']),
    )
    for (const reactivity of ['tough', 'average', 'reactive'] as const) {
      const styles = ['gentlest', 'balanced', 'closest'] as const
      for (const style of styles)
        expect(ways(planFor({ skin: { reactivity }, choice: { style } }))).not.toContain('against')
    }
    expect(ways(planFor({ skin: { bumpProne: true } }))).toEqual(['with'])
    expect(ways(planFor({ choice: { style: 'gentlest' } }))).toEqual(['with'])
  })

  it('looks and feels for moles before the gel hides them, and by hand at the end', () => {
    const { steps } = planFor()
    const at = (id: string) => steps.findIndex((s) => s.id === id)
    expect(at('prepare:spots')).toBeGreaterThan(at('prepare:cleanse'))
    expect(at('prepare:spots')).toBeLessThan(at('prepare:lather'))
    expect(steps.find((s) => s.id === 'check')!.text).toMatch(/^By hand/)
  })

  it('turns the client over once: all that lies on the back is done before or after the front', () => {
    const order = planFor({ choice: { style: 'gentlest' } })
      .lanes.filter((l) => l.pass === 1)
      .map((l) => l.zoneId.startsWith('back'))
    const turns = order.filter((back, i) => i > 0 && back !== order[i - 1])
    expect(turns).toHaveLength(1)
  })

  it('leaves a mole and its margin alone', () => {
    const plan = planFor({
      spots: [
        {
          id: 'm',
          kind: 'mole',
          zoneId: 'back-upper-left',
          point: [272, -580, 0],
          normal: [0, 0, 1],
          radiusMm: 4,
        },
      ],
    })
    expect(plan.zones.find((z) => z.zoneId === 'back-upper-left')!.avoid.join()).toContain('mole')
  })
})
