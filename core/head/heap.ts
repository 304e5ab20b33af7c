/** A heap of numbered places by cost, the least on top. */
export class Heap {
  private readonly keys: number[] = []
  private readonly costs: number[] = []
  get size(): number {
    return this.keys.length
  }
  push(key: number, cost: number): void {
    let i = this.keys.length
    this.keys.push(key)
    this.costs.push(cost)
    while (i > 0) {
      const up = (i - 1) >> 1
      if (this.costs[up]! <= cost) break
      this.keys[i] = this.keys[up]!
      this.costs[i] = this.costs[up]!
      i = up
    }
    this.keys[i] = key
    this.costs[i] = cost
  }
  pop(): number {
    const top = this.keys[0]!
    const key = this.keys.pop()!
    const cost = this.costs.pop()!
    const n = this.keys.length
    if (n === 0) return top
    let i = 0
    for (;;) {
      let down = 2 * i + 1
      if (down >= n) break
      if (down + 1 < n && this.costs[down + 1]! < this.costs[down]!) down++
      if (this.costs[down]! >= cost) break
      this.keys[i] = this.keys[down]!
      this.costs[i] = this.costs[down]!
      i = down
    }
    this.keys[i] = key
    this.costs[i] = cost
    return top
  }
}
