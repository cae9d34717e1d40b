import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { change, firstRow, inTransaction, rowsOf } from '@wickerframe/storage'
import { startPrivateSchema, type PrivateSchema } from './testing/privateSchema.testing.ts'

let schema: PrivateSchema
let ids: number[]
beforeAll(async () => {
  schema = await startPrivateSchema()
  ids = await schema.addCourses(6)
})
afterAll(() => schema.stop())
const titleOf = async (id: number): Promise<string | undefined> =>
  (
    await firstRow<{ title: string }>(
      schema.pool,
      `SELECT title
       FROM courses
       WHERE id = ?`,
      [id],
    )
  )?.title

describe('a transaction', () => {
  it('is done wholly, or not at all', async () => {
    const [first = 0] = ids
    const before = await titleOf(first)
    const failed = inTransaction(schema.pool, async (database) => {
      await change(
        database,
        `UPDATE courses
         SET title = ?
         WHERE id = ?`,
        ['Half done', first],
      )
      throw new Error('then the power went')
    })
    await expect(failed).rejects.toThrow('then the power went')
    expect(await titleOf(first)).toBe(before)
  })
  it('gives its connection back, however it ends', async () => {
    for (let i = 0; i < 30; i++)
      await inTransaction(schema.pool, () => Promise.reject(new Error('no'))).catch(() => undefined)
    expect(
      await inTransaction(schema.pool, (database) => rowsOf(database, 'SELECT 1 AS one')),
    ).toEqual([{ one: 1 }])
  })
  it('that meets another in a deadlock is run again, and both are done', async () => {
    const [first = 0, second = 0] = ids
    let tries = 0
    let met = 0
    let meet = (): void => undefined
    const both = new Promise<void>((resolve) => {
      meet = resolve
    })
    // Each holds one row before it asks for the other’s: MariaDB ends one of them.
    const crossed = (mine: number, other: number, word: string) =>
      inTransaction(schema.pool, async (database) => {
        tries += 1
        await change(
          database,
          `UPDATE courses
           SET title = ?
           WHERE id = ?`,
          [word, mine],
        )
        if (++met === 2) meet()
        await both
        await change(
          database,
          `UPDATE courses
           SET title = ?
           WHERE id = ?`,
          [word, other],
        )
        return word
      })
    expect(
      await Promise.all([crossed(first, second, 'from one'), crossed(second, first, 'from two')]),
    ).toEqual(['from one', 'from two'])
    expect(tries).toBeGreaterThan(2)
    expect(await titleOf(first)).toBe(await titleOf(second))
  })
  it('that fails for another reason is not run again', async () => {
    let tries = 0
    const wrong = inTransaction(schema.pool, (database) => {
      tries += 1
      return change(
        database,
        `UPDATE courses
         SET no_such = 1
         WHERE id = ?`,
        [1],
      )
    })
    await expect(wrong).rejects.toMatchObject({ code: 'ER_BAD_FIELD_ERROR' })
    expect(tries).toBe(1)
  })
})

describe('a change by itself', () => {
  /** Until a statement waits for a lock. */
  const somebodyWaits = async (): Promise<void> => {
    const waiting = await firstRow(
      schema.pool,
      `SELECT 1 AS waits
       FROM information_schema.INNODB_TRX
       WHERE trx_state = 'LOCK WAIT'`,
    )
    if (!waiting) return somebodyWaits()
  }
  const retitle = (word: string, of: readonly number[]) =>
    [
      `UPDATE courses
       SET title = ?
       WHERE id IN (${of.map(() => '?').join(', ')})`,
      [word, ...of],
    ] as const
  it('that meets a transaction in a deadlock is made again, once', async () => {
    const [first = 0, second = 0, ...others] = ids
    let asked = 0
    const counting = new Proxy(schema.pool, {
      get: (pool, name) => {
        if (name === 'execute') asked += 1
        const value: unknown = Reflect.get(pool, name)
        return typeof value === 'function' ? value.bind(pool) : value
      },
    })
    let alone: ReturnType<typeof change> | undefined
    // It has written more, so MariaDB ends the other.
    await inTransaction(schema.pool, async (database) => {
      await change(database, ...retitle('of the transaction', [second, ...others]))
      alone = change(counting, ...retitle('by itself', [first, second]))
      await somebodyWaits()
      await change(database, ...retitle('of the transaction', [first]))
    })
    expect(await alone).toMatchObject({ affected: 2 })
    expect(asked).toBe(2)
    expect([await titleOf(first), await titleOf(second)]).toEqual(['by itself', 'by itself'])
  })
})
