/** The packing as an integer programme, for a solver. */
import type { PackArrays } from './packing.ts'

/**
 * The choices that are open as an integer programme in CPLEX's LP format, for a solver: most worth, each client once, no resource
 * overdrawn in any slot. Variables are `x` and the number of the choice.
 */
export function lpOf(p: PackArrays, open: Int32Array): string {
  const isOpen = new Set(open)
  const terms = (list: readonly string[]) => {
    const lines: string[] = []
    for (let i = 0; i < list.length; i += 12) lines.push(list.slice(i, i + 12).join(' '))
    return lines.join('\n ')
  }
  const objective = [...open].map((i) => `+ ${p.value[i]!.toFixed(6)} x${i}`)
  const rows: string[] = []
  p.owned.forEach((own, c) => {
    const list = [...own].filter((i) => isOpen.has(i)).map((i) => `+ x${i}`)
    if (list.length > 1) rows.push(` c${c}: ${terms(list)} <= 1`)
  })
  p.capacity.forEach((capacity, r) => {
    const at: string[][] = Array.from({ length: p.slots }, () => [])
    const most = new Int32Array(p.slots)
    for (const i of open)
      for (let u = p.first[i]!; u < p.first[i + 1]!; u++) {
        if (p.res[u] !== r) continue
        for (let s = p.from[u]!; s < p.to[u]!; s++) {
          at[s]!.push(p.many[u] === 1 ? `+ x${i}` : `+ ${p.many[u]!} x${i}`)
          most[s]! += p.many[u]!
        }
      }
    let before = ''
    at.forEach((list, s) => {
      if (most[s]! <= capacity[s]!) return
      const row = `${terms(list)} <= ${capacity[s]!}`
      // A slot that is taken by the same as the one before says nothing new.
      if (row !== before) rows.push(` r${r}s${s}: ${row}`)
      before = row
    })
  })
  const all = [...open].map((i) => `x${i}`)
  return `Maximize\n obj: ${terms(objective)}\nSubject To\n${rows.join('\n')}\nBinary\n ${terms(all)}\nEnd\n`
}
