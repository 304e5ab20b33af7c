/**
 * Choosing appointments (M19) as packing: each client takes at most one of many choices; a choice takes so much of some resources
 * for some slots; what it is worth is summed. The bound is Lagrange's (Held & Karp 1971; Fisher 1981; from memory): with a price on
 * each slot of each resource every client chooses alone, and no choice of all of them together is worth more than that. Prices that
 * bound well also choose well: the clients are laid in by what they are worth over the prices, and what lies is then improved.
 */

/** Numbers that become more; in bytes of their own, beside what the engine has to look after. */
class Growing<A extends Int32Array | Float64Array> {
  private all: A
  private readonly make: (n: number) => A
  length = 0

  constructor(make: (n: number) => A) {
    this.make = make
    this.all = make(1024)
  }

  push(x: number): void {
    if (this.length === this.all.length) {
      const more = this.make(2 * this.all.length)
      more.set(this.all)
      this.all = more
    }
    this.all[this.length++] = x
  }

  close(): A {
    return this.all.slice(0, this.length) as A
  }
}
const ints = () => new Growing((n) => new Int32Array(n))

/** All choices, side by side in arrays: a month of many clients has hundreds of thousands. */
export class Packing {
  readonly slots: number
  /** How much of each resource there is, slot by slot. */
  readonly capacity: readonly Int32Array[]
  readonly clients: number
  private readonly client = ints()
  private readonly value = new Growing((n) => new Float64Array(n))
  /** Where the uses of a choice begin. */
  private readonly first = ints()
  private readonly res = ints()
  private readonly from = ints()
  private readonly to = ints()
  private readonly many = ints()

  constructor(clients: number, capacity: readonly Int32Array[]) {
    this.clients = clients
    this.capacity = capacity
    this.slots = capacity[0]?.length ?? 0
    this.first.push(0)
  }

  get choices(): number {
    return this.client.length
  }

  /** @returns the number of the choice */
  add(client: number, worth: number, uses: readonly PackUse[]): number {
    this.client.push(client)
    this.value.push(worth)
    for (const u of uses) {
      this.res.push(u.resource)
      this.from.push(u.from)
      this.to.push(u.to)
      this.many.push(u.many)
    }
    this.first.push(this.res.length)
    return this.client.length - 1
  }

  /** The same in arrays that are quick to read. */
  close(): PackArrays {
    const client = this.client.close()
    const owned = Array.from({ length: this.clients }, ints)
    client.forEach((c, i) => owned[c]!.push(i))
    return {
      ...{ slots: this.slots, capacity: this.capacity, clients: this.clients, client },
      value: this.value.close(),
      first: this.first.close(),
      res: this.res.close(),
      from: this.from.close(),
      to: this.to.close(),
      many: this.many.close(),
      owned: owned.map((o) => o.close()),
    }
  }
}

export interface PackUse {
  readonly resource: number
  /** Slots from which until before which. */
  readonly from: number
  readonly to: number
  readonly many: number
}

export interface PackArrays {
  readonly slots: number
  readonly capacity: readonly Int32Array[]
  readonly clients: number
  readonly client: Int32Array
  readonly value: Float64Array
  readonly first: Int32Array
  readonly res: Int32Array
  readonly from: Int32Array
  readonly to: Int32Array
  readonly many: Int32Array
  /** Choices of each client. */
  readonly owned: readonly Int32Array[]
}

/** What was chosen. */
export interface Packed {
  /** The choice of each client; −1 for none. */
  readonly chosen: Int32Array
  readonly value: number
  /** No choice is worth more than this. */
  readonly bound: number
  /** Choices that may be part of something better; with any other the bound itself lies below what was found. */
  readonly open: Int32Array
}

/** What is taken so far. */
class Laid {
  readonly p: PackArrays
  readonly left: Int32Array[]
  readonly chosen: Int32Array
  value = 0

  constructor(p: PackArrays) {
    this.p = p
    this.left = p.capacity.map((c) => Int32Array.from(c))
    this.chosen = new Int32Array(p.clients).fill(-1)
  }

  fits(choice: number): boolean {
    const { first, res, from, to, many } = this.p
    for (let u = first[choice]!; u < first[choice + 1]!; u++) {
      const left = this.left[res[u]!]!
      for (let s = from[u]!; s < to[u]!; s++) if (left[s]! < many[u]!) return false
    }
    return true
  }

  take(choice: number, sign: 1 | -1 = 1): void {
    const { first, res, from, to, many, client, value } = this.p
    for (let u = first[choice]!; u < first[choice + 1]!; u++) {
      const left = this.left[res[u]!]!
      for (let s = from[u]!; s < to[u]!; s++) left[s]! -= sign * many[u]!
    }
    this.chosen[client[choice]!] = sign > 0 ? choice : -1
    this.value += sign * value[choice]!
  }

  /** The best that fits of a client's, by worth over prices; −1 for none that is worth anything. */
  best(client: number, cost?: (choice: number) => number): number {
    let [best, most] = [-1, 0]
    for (const i of this.p.owned[client]!) {
      const worth = this.p.value[i]! - (cost ? cost(i) : 0)
      if (worth > most && this.fits(i)) [best, most] = [i, worth]
    }
    return best
  }
}

/** Prices on slots, summed up so that a choice costs two looks a use. */
function priced(p: PackArrays) {
  const price = p.capacity.map(() => new Float64Array(p.slots))
  const upTo = p.capacity.map(() => new Float64Array(p.slots + 1))
  const sum = () => {
    for (let r = 0; r < price.length; r++) {
      const [own, all] = [price[r]!, upTo[r]!]
      for (let s = 0; s < own.length; s++) all[s + 1] = all[s]! + own[s]!
    }
  }
  const cost = (choice: number): number => {
    let c = 0
    for (let u = p.first[choice]!; u < p.first[choice + 1]!; u++) {
      const all = upTo[p.res[u]!]!
      c += p.many[u]! * (all[p.to[u]!]! - all[p.from[u]!]!)
    }
    return c
  }
  return { price, sum, cost }
}

export interface PackOptions {
  readonly rounds?: number
  /** By this clock it ends then, with what was found. */
  readonly nowMs?: () => number
  readonly untilMs?: number
}

/** Chooses well, and says how well. */
export function pack(p: PackArrays, { rounds = 4000, nowMs, untilMs }: PackOptions = {}): Packed {
  const late = () => untilMs !== undefined && nowMs !== undefined && nowMs() > untilMs
  const { price, sum, cost } = priced(p)
  let bound = p.value.length === 0 ? 0 : Infinity
  let best = improve(lay(p), late)
  const bestPrices = price.map((x) => Float64Array.from(x))
  const used = p.capacity.map(() => new Int32Array(p.slots + 1))
  let step = 1.2
  let since = 0
  for (let round = 0; round < rounds && p.value.length > 0; round++) {
    if (late() && round > 20) break
    sum()
    for (const u of used) u.fill(0)
    let told = 0
    for (let c = 0; c < p.clients; c++) {
      let [at, most] = [-1, 0]
      for (const i of p.owned[c]!) {
        const worth = p.value[i]! - cost(i)
        if (worth > most) [at, most] = [i, worth]
      }
      told += most
      if (at < 0) continue
      for (let u = p.first[at]!; u < p.first[at + 1]!; u++) {
        used[p.res[u]!]![p.from[u]!]! += p.many[u]!
        used[p.res[u]!]![p.to[u]!]! -= p.many[u]!
      }
    }
    let steep = 0
    for (let r = 0; r < used.length; r++) {
      let now = 0
      const [cap, own, taken] = [p.capacity[r]!, price[r]!, used[r]!]
      for (let s = 0; s < p.slots; s++) {
        now += taken[s]!
        const over = now - cap[s]!
        told += own[s]! * cap[s]!
        taken[s] = over
        // Where nothing is asked and nothing paid nothing changes.
        if (over > 0 || own[s]! > 0) steep += over * over
      }
    }
    if (told < bound - 1e-9) {
      bound = told
      since = 0
      price.forEach((x, r) => bestPrices[r]!.set(x))
    } else if (++since >= 15) {
      step /= 1.35
      since = 0
      price.forEach((x, r) => x.set(bestPrices[r]!))
    }
    if (round % 40 === 39) {
      const next = improve(lay(p, cost), late)
      if (next.value > best.value) best = next
    }
    if (bound - best.value < 1e-6 || steep === 0 || step < 1e-4) break
    const length = (step * Math.max(1e-6, told - best.value)) / steep
    for (let r = 0; r < used.length; r++) {
      const [own, over] = [price[r]!, used[r]!]
      for (let s = 0; s < p.slots; s++) own[s] = Math.max(0, own[s]! + length * over[s]!)
    }
  }
  price.forEach((x, r) => x.set(bestPrices[r]!))
  sum()
  const last = improve(lay(p, cost), late)
  if (last.value > best.value) best = last
  return {
    ...{ chosen: best.chosen, value: best.value, bound: Math.max(bound, best.value) },
    open: stillOpen(p, cost, bound, best.value),
  }
}

/** Reduced-cost fixing: what a choice loses against its client's best, over the prices, must fit between bound and value. */
function stillOpen(
  p: PackArrays,
  cost: (choice: number) => number,
  bound: number,
  value: number,
): Int32Array {
  const open: number[] = []
  for (const own of p.owned) {
    let most = 0
    const over = Array.from(own, (i) => p.value[i]! - cost(i))
    for (const worth of over) most = Math.max(most, worth)
    own.forEach((i, k) => {
      if (p.value[i]! > 0 && bound - most + over[k]! >= value - 1e-9) open.push(i)
    })
  }
  return Int32Array.from(open)
}

/** Clients one after the other, whoever gains most over the prices first. */
function lay(p: PackArrays, cost?: (choice: number) => number): Laid {
  const laid = new Laid(p)
  const gains = Array.from({ length: p.clients }, (_, c) => {
    let most = 0
    for (const i of p.owned[c]!) most = Math.max(most, p.value[i]! - (cost ? cost(i) : 0))
    return { c, most }
  })
  const left: number[] = []
  for (const { c, most } of gains.sort((a, b) => b.most - a.most)) {
    const at = most > 0 ? laid.best(c, cost) : -1
    if (at >= 0) laid.take(at)
    else left.push(c)
  }
  // Whom the prices left out may still find room.
  for (const c of left) {
    const at = laid.best(c)
    if (at >= 0) laid.take(at)
  }
  return laid
}

/** Choices of a client that are tried in the place of others: those that are worth most. */
const TRIED = 80

/** Moves one for the better, or lets one in where another has to move, until nothing gains. */
function improve(laid: Laid, late: () => boolean): Laid {
  const { p } = laid
  const tried = p.owned.map((own) => {
    const sorted = Int32Array.from(own).sort((a, b) => p.value[b]! - p.value[a]!)
    return sorted.subarray(0, TRIED)
  })
  for (let changed = true, rounds = 0; changed && rounds < 30 && !late(); rounds++) {
    changed = false
    for (let c = 0; c < p.clients; c++) {
      const was = laid.chosen[c]!
      if (was >= 0) laid.take(was, -1)
      const to = laid.best(c)
      if (to >= 0 && (was < 0 || p.value[to]! > p.value[was]! + 1e-9)) {
        laid.take(to)
        changed = true
        continue
      }
      if (was >= 0) laid.take(was)
      if (letIn(laid, c, tried[c]!)) changed = true
    }
  }
  return laid
}

/** Lets a client in where one other has to move or go, if that gains. */
function letIn(laid: Laid, c: number, tried: Int32Array): boolean {
  const { p } = laid
  const was = laid.chosen[c]!
  const had = was >= 0 ? p.value[was]! : 0
  if (was >= 0) laid.take(was, -1)
  for (const i of tried) {
    const gains = p.value[i]! - had
    if (gains <= 1e-9) break
    const other = onlyOneInTheWay(laid, i)
    if (other < 0) continue
    const theirs = laid.chosen[other]!
    laid.take(theirs, -1)
    if (laid.fits(i)) {
      laid.take(i)
      const to = laid.best(other)
      if (gains + (to >= 0 ? p.value[to]! : 0) - p.value[theirs]! > 1e-9) {
        if (to >= 0) laid.take(to)
        return true
      }
      laid.take(i, -1)
    }
    laid.take(theirs)
  }
  if (was >= 0) laid.take(was)
  return false
}

/** The one client whose choice is in the way of another; −1 for none or several. */
function onlyOneInTheWay(laid: Laid, choice: number): number {
  const { p } = laid
  let one = -1
  for (let c = 0; c < p.clients; c++) {
    const own = laid.chosen[c]!
    if (own < 0 || !meet(p, own, choice)) continue
    if (one >= 0) return -1
    one = c
  }
  return one
}

function meet(p: PackArrays, a: number, b: number): boolean {
  for (let u = p.first[a]!; u < p.first[a + 1]!; u++)
    for (let v = p.first[b]!; v < p.first[b + 1]!; v++)
      if (p.res[u] === p.res[v] && p.from[u]! < p.to[v]! && p.from[v]! < p.to[u]!) return true
  return false
}

/** What is wrong with what was chosen; nothing where it can be. Checked slot by slot, by no means of the search. */
export function unfit(p: PackArrays, chosen: Int32Array): string | undefined {
  const left = p.capacity.map((c) => Array.from(c))
  for (let c = 0; c < p.clients; c++) {
    const i = chosen[c]!
    if (i < 0) continue
    if (p.client[i] !== c) return `client ${c} has a choice of another`
    for (let u = p.first[i]!; u < p.first[i + 1]!; u++)
      for (let s = p.from[u]!; s < p.to[u]!; s++)
        if ((left[p.res[u]!]![s]! -= p.many[u]!) < 0) return `too much of ${p.res[u]!} at ${s}`
  }
  return undefined
}
