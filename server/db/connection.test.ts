import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { QueryTypes } from 'sequelize'
import { openDatabase } from './connection.ts'
import { WriteQueue } from './writeQueue.ts'

describe('the database', () => {
  const dir = mkdtempSync(join(tmpdir(), 'slow-tide-db-'))
  afterAll(() => rmSync(dir, { recursive: true, force: true }))

  it('sets its pragmas on every connection and opens again on the same data', async () => {
    for (let i = 0; i < 2; i++) {
      const db = await openDatabase(dir)
      const pragma = async (name: string) => {
        const [row] = await db.sequelize.query(`SELECT * FROM pragma_${name}`, {
          type: QueryTypes.SELECT,
        })
        return Object.values(row as object)[0] as unknown
      }
      expect(await pragma('journal_mode')).toBe('wal')
      expect(await pragma('foreign_keys')).toBe(1)
      expect(await pragma('synchronous')).toBe(2)
      expect(await pragma('busy_timeout')).toBe(5000)
      await db.close()
    }
  })

  it('puts the file aside before it changes its shape', async () => {
    const db = await openDatabase(dir)
    await db.sequelize.query('DELETE FROM migrations')
    await db.close()
    // The tables are there already, so migrating again fails: the copy must exist all the same.
    await expect(openDatabase(dir)).rejects.toThrow()
    expect(readdirSync(dir).filter((f) => f.startsWith('before-migration-'))).toHaveLength(1)
  })
})

describe('the write queue', () => {
  it('runs writes one at a time, in order, and goes on after one that failed', async () => {
    const queue = new WriteQueue()
    const log: string[] = []
    const write = (name: string, ms: number, fails = false) =>
      queue.run(async () => {
        log.push(`${name} begins`)
        await new Promise((r) => setTimeout(r, ms))
        if (fails) throw new Error(name)
        log.push(`${name} ends`)
        return name
      })
    const all = await Promise.allSettled([write('a', 15), write('b', 1, true), write('c', 5)])
    expect(all.map((r) => r.status)).toEqual(['fulfilled', 'rejected', 'fulfilled'])
    expect(log).toEqual(['a begins', 'a ends', 'b begins', 'c begins', 'c ends'])
    await queue.drained()
  })
})
