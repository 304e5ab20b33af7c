/** What lies ready: blades, towels, paper, gloves, with their cost (M14). */
import { constant, PRICE, type Figures } from '../house/index.ts'
import { type Service, SERVICES, type ServiceId } from '../services/index.ts'
import { BLADES, type BladeId } from '../kit/index.ts'
import type { KitItem, Lane } from './types.ts'

export const KIT_CONSTANTS = {
  towelCost: constant(0.35, PRICE, 'Washing a towel', 'H'),
  glovesCost: constant(0.12, PRICE, 'A pair of gloves', 'H'),
  paperCost: constant(0.02, PRICE, 'A sheet of paper', 'H'),
  latherCost: constant(0.4, PRICE, 'Oil and lather for one service', 'H'),
  balmCost: constant(0.3, PRICE, 'Balm, a coin-sized amount', 'H'),
  strokesPerSheet: constant(45, 'strokes', 'Strokes wiped on one sheet of paper', 'H'),
} as const

const C = KIT_CONSTANTS

/** Lists the kit of a service. */
export function kitFor(
  figures: Figures,
  service: ServiceId,
  lanes: readonly Lane[],
  blades: ReadonlyMap<BladeId, number>,
  strays: number,
): KitItem[] {
  const items: KitItem[] = []
  const add = (name: string, count: number, unit: string, each: number) => {
    if (count > 0) items.push({ name, count, unit, cost: Math.round(count * each * 100) / 100 })
  }
  for (const [id, count] of blades)
    add(BLADES[id].name, count, count === 1 ? 'blade' : 'blades', figures(BLADES[id].price))
  const strokes = lanes.reduce((s, l) => s + l.strokes, 0)
  const { lather, towels: wanted } = SERVICES[service]
  const towels = typeof wanted === 'number' ? wanted : figures(wanted)
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
