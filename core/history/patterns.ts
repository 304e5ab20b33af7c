/** Choices at a zone as figures, and the few ways in which zones are done. */
import type { Relation } from '../grain/index.ts'
import type { Slip, ToolKind } from '../skin/index.ts'
import type { ZoneChoice } from './choices.ts'

export const CHOICES = {
  across: 'Across the grain, not with it',
  against: 'Against the grain, not with it',
  'second-pass': 'Each further pass',
  guarded: 'A guarded razor, not a single edge',
  cartridge: 'A cartridge, not a single edge',
  trimmer: 'A trimmer, not a single edge',
  damp: 'Damp skin, not full slip',
  dry: 'Dry skin, not full slip',
  sooner: 'Half the usual time between visits',
  'worn-blade': 'A blade at the end of its life, not a fresh one',
} as const
export type ChoiceId = keyof typeof CHOICES
export const CHOICE_IDS = Object.keys(CHOICES) as ChoiceId[]

/** The choices of a zone as figures. */
function figures(zone: ZoneChoice, slip: string, sooner: number): Record<ChoiceId, number> {
  return {
    across: zone.relation === 'across' ? 1 : 0,
    against: zone.relation === 'against' ? 1 : 0,
    'second-pass': zone.passes - 1,
    guarded: zone.tool === 'guarded' ? 1 : 0,
    cartridge: zone.tool === 'cartridge' ? 1 : 0,
    trimmer: zone.tool === 'trimmer' ? 1 : 0,
    damp: slip === 'damp' ? 1 : 0,
    dry: slip === 'dry' ? 1 : 0,
    sooner,
    'worn-blade': zone.wear,
  }
}

const RELATIONS: readonly Relation[] = ['with', 'across', 'against']
const TOOLS: readonly ToolKind[] = [
  'single-edge',
  'guarded',
  'dermaplaning',
  'trimmer',
  'cartridge',
]
const SLIPS: readonly Slip[] = ['full', 'damp', 'dry']

interface Pattern {
  readonly index: number
  /** Choices that are not zero, by their place in CHOICE_IDS. */
  readonly values: readonly (readonly [place: number, value: number])[]
  /** Those that count as made, a bit for each place. */
  readonly made: number
}

/** Ways in which a zone was done; most visits share a few. */
export class Patterns {
  private readonly known = new Map<number, Pattern>()
  private readonly ranges = new Map<ChoiceId, Set<number>>()

  of(zone: ZoneChoice, slip: Slip, sooner: number): Pattern {
    const wear = Math.round(2 * zone.wear) / 2
    // One number for all of it: this is asked for every zone of every visit.
    let key = RELATIONS.indexOf(zone.relation)
    for (const [digit, base] of [
      [Math.min(9, zone.passes), 10],
      [TOOLS.indexOf(zone.tool), 8],
      [2 * wear, 4],
      [SLIPS.indexOf(slip), 4],
      [2 * (sooner + 1), 8],
    ] as const) {
      key = key * base + digit
    }
    const had = this.known.get(key)
    if (had) return had
    const own = figures({ ...zone, wear }, slip, sooner)
    for (const id of CHOICE_IDS) {
      const range = this.ranges.get(id) ?? new Set<number>()
      this.ranges.set(id, range.add(own[id]))
    }
    const values = CHOICE_IDS.flatMap((id, place) =>
      own[id] === 0 ? [] : [[place, own[id]] as const],
    )
    const pattern = {
      index: this.known.size,
      values,
      made: values.reduce(
        (bits, [place, v]) => (Math.abs(v) >= 0.5 ? bits | (1 << place) : bits),
        0,
      ),
    }
    this.known.set(key, pattern)
    return pattern
  }

  /** True when a choice was made in more than one way. */
  varied(id: ChoiceId): boolean {
    return (this.ranges.get(id)?.size ?? 0) > 1
  }
}
