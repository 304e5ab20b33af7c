import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { QueryTypes } from 'sequelize'
import { openDatabase, type Database } from './connection.ts'
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
})

describe('a write', () => {
  let dir = ''
  beforeEach(() => {
    dir = mkdtempSync(join(tmpdir(), 'slow-tide-db-'))
  })
  afterEach(() => rmSync(dir, { recursive: true, force: true }))
  const worker = { id: 'w1', name: 'Ada Reef', role: 'barber', hand: 'right' }
  const names = async (db: Database) =>
    (await db.select('SELECT name FROM workers ORDER BY name')).map((r) => r['name'])

  it('is kept whole or not at all', async () => {
    const db = await openDatabase(dir)
    const failing = db.write(async () => {
      await db.models.Worker.create(worker)
      throw new Error('the tide took it')
    })
    await expect(failing).rejects.toThrow('the tide took it')
    expect(await names(db)).toEqual([])
    await db.write(() => db.models.Worker.create(worker))
    expect(await names(db)).toEqual(['Ada Reef'])
    await db.close()
  })

  it('is not seen by readers before it has ended', async () => {
    const db = await openDatabase(dir)
    await db.write(async () => {
      await db.models.Worker.create(worker)
      expect(await names(db)).toEqual([])
    })
    expect(await names(db)).toEqual(['Ada Reef'])
    await db.close()
  })

  it('goes on after a statement that SQLite refused', async () => {
    const db = await openDatabase(dir)
    await db.write(() => db.models.Worker.create(worker))
    await expect(db.write(() => db.models.Worker.create(worker))).rejects.toThrow()
    await db.write(() => db.models.Worker.create({ ...worker, id: 'w2', name: 'Bo Lee' }))
    expect(await names(db)).toEqual(['Ada Reef', 'Bo Lee'])
    await db.close()
  })

  it('cannot be made through the reader; lists are bound as one value', async () => {
    const db = await openDatabase(dir)
    await db.write(() => db.models.Worker.create(worker))
    await expect(db.select('DELETE FROM workers')).rejects.toThrow(/readonly/)
    const listed = 'SELECT id FROM workers WHERE id IN (SELECT value FROM json_each(?))'
    expect(await db.select(listed, [['w0', 'w1']])).toEqual([{ id: 'w1' }])
    expect(await db.select(listed, [[]])).toEqual([])
    await expect(db.select('SELECT id FROM nowhere')).rejects.toThrow(/no such table/)
    await expect(db.select('SELECT id FROM nowhere')).rejects.toThrow(/no such table/)
    await db.close()
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
