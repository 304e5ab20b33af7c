/** What lies ready: blades, towels, paper, gloves, with their cost (M14). */
import { constant, PRICE, type Figures, type Schools } from '../house/index.ts'
import { methodFacts, type Service, SERVICES, type ServiceId } from '../services/index.ts'
import { BLADE_IDS, BLADES, type BladeId } from '../kit/index.ts'
import type { HandWork, KitItem, Lane } from './types.ts'

export const KIT_CONSTANTS = {
  towelCost: constant(0.35, PRICE, 'Washing a towel', 'H'),
  glovesCost: constant(0.12, PRICE, 'A pair of gloves', 'H'),
  paperCost: constant(0.02, PRICE, 'A sheet of paper', 'H'),
  latherCost: constant(0.4, PRICE, 'Oil and lather for one service', 'H'),
  balmCost: constant(0.3, PRICE, 'Balm, a coin-sized amount', 'H'),
  strokesPerSheet: constant(45, 'strokes', 'Strokes wiped on one sheet of paper', 'H'),
} as const

const C = KIT_CONSTANTS

/** Counted for each job; of all else one lies ready for the whole sitting. */
const FOR_EACH = new Set(['blade', 'blades', 'sheets'])

/** The kit of a sitting: blades and paper of every job, towels and balm as the job that wants most; what is done by hand uses its own. */
export function sittingKit(
  figures: Figures,
  kits: readonly (readonly KitItem[])[],
  hand: readonly HandWork[],
): KitItem[] {
  const items = new Map<string, KitItem>()
  const put = (item: KitItem) => {
    const had = items.get(item.name)
    if (!had) items.set(item.name, item)
    else if (FOR_EACH.has(item.unit)) {
      const count = had.count + item.count
      const unit = item.unit === 'blade' ? 'blades' : item.unit
      const cost = Math.round(100 * (had.cost + item.cost)) / 100
      items.set(item.name, { ...item, count, unit, cost })
    } else if (item.count > had.count) items.set(item.name, item)
  }
  for (const item of kits.flat()) put(item)
  if (kits.length === 0) {
    put({ name: 'gloves', count: 1, unit: 'pair', cost: figures(C.glovesCost) })
    put({ name: 'paper', count: 1, unit: 'sheets', cost: figures(C.paperCost) })
    put({ name: 'balm without alcohol', count: 1, unit: 'coin', cost: figures(C.balmCost) })
  }
  for (const { method } of hand) {
    const { uses } = methodFacts(method)
    if (uses) put({ name: uses.name, count: 1, unit: 'job', cost: figures(uses.cost) })
    else put({ name: method, count: 1, unit: 'pair', cost: 0 })
  }
  return [...items.values()]
}

/** Of what lies ready the blades, by kind. */
export function bladesIn(kit: readonly KitItem[]): Partial<Record<BladeId, number>> {
  return Object.fromEntries(
    BLADE_IDS.flatMap((id) => {
      const item = kit.find((k) => k.name === BLADES[id].name)
      return item ? [[id, item.count]] : []
    }),
  )
}

/** Lists the kit of a service. */
export function kitFor(
  figures: Figures,
  service: ServiceId,
  lanes: readonly Lane[],
  blades: ReadonlyMap<BladeId, number>,
  strays: number,
  schools?: Pick<Schools, 'towels'>,
): KitItem[] {
  const items: KitItem[] = []
  const add = (name: string, count: number, unit: string, each: number) => {
    if (count > 0) items.push({ name, count, unit, cost: Math.round(count * each * 100) / 100 })
  }
  for (const [id, count] of blades)
    add(BLADES[id].name, count, count === 1 ? 'blade' : 'blades', figures(BLADES[id].price))
  const strokes = lanes.reduce((s, l) => s + l.strokes, 0)
  const { lather, towels: wanted, cools } = SERVICES[service]
  const third = cools === 'towel' && schools?.towels === 'three' ? 1 : 0
  const towels = third + (typeof wanted === 'number' ? wanted : figures(wanted))
  add('towels', towels, towels === 1 ? 'towel' : 'towels', figures(C.towelCost))
  add('gloves', 1, 'pair', figures(C.glovesCost))
  add(
    'paper',
    Math.max(1, Math.ceil(strokes / figures(C.strokesPerSheet))),
    'sheets',
    figures(C.paperCost),
  )
  if (lather) add('oil and lather', 1, 'bowl', figures(C.latherCost))
  const { tools: own }: Service = SERVICES[service]
  const tools = new Set(own)
  if (strays > 0) tools.add('tweezers')
  for (const tool of tools) add(tool, 1, 'pair', 0)
  add('styptic', 1, 'stick', 0)
  add('balm without alcohol', 1, 'coin', figures(C.balmCost))
  return items
}
