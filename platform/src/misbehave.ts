import type { Pool } from 'mysql2/promise'
import type { Dropped } from './rewriteHtml.ts'
import { change, firstRow, rowsOf } from '@wickerframe/storage'

/** What the platform can be told to do wrong. `remaining` counts down with each time, but for those that last. */
export const misbehaviours = {
  'slow-answers': 'Wait so many milliseconds before every answer to the connector',
  'too-many-requests': 'Answer the next so many requests with 429 and Retry-After: 1',
  'server-error': 'Answer the next so many requests with 500',
  'lost-answer': 'Apply the next so many change sets, then cut the connection before answering',
  'never-answers': 'Apply the next so many change sets, then never answer',
  'wrong-course': 'Answer the next so many readings of a course with another course',
  'edit-in-between':
    'Have somebody edit the course just before each of the next so many change sets',
  'strip-styles': '1: strip styles when it writes HTML; 0: keep them',
  'hide-questions': '1: do not tell the connector what assessments ask; 0: tell it',
  'no-reader-name': '1: put the first name of whoever reads into no page; 0: do',
  'hide-files': '1: do not tell the connector which files items show; 0: tell it',
  'strip-attributes': '1: strip attributes it does not know when it writes HTML; 0: keep them',
} as const
export type Misbehaviour = keyof typeof misbehaviours
type Lasting =
  | 'slow-answers'
  | 'hide-questions'
  | 'hide-files'
  | 'no-reader-name'
  | 'strip-attributes'
  | 'strip-styles'
export const isMisbehaviour = (name: string): name is Misbehaviour =>
  Object.hasOwn(misbehaviours, name)

export class Misbehaviours {
  readonly #pool: Pool
  constructor(pool: Pool) {
    this.#pool = pool
  }

  async all(): Promise<Record<Misbehaviour, number>> {
    const rows = await rowsOf<{ name: string; remaining: number }>(
      this.#pool,
      `SELECT name, remaining
       FROM misbehaviours`,
    )
    const set = Object.fromEntries(rows.map((row) => [row.name, Number(row.remaining)]))
    return Object.fromEntries(
      Object.keys(misbehaviours).map((name) => [name, set[name] ?? 0]),
    ) as Record<Misbehaviour, number>
  }

  async set(name: Misbehaviour, remaining: number): Promise<void> {
    await change(
      this.#pool,
      `INSERT INTO misbehaviours (name, remaining)
       VALUES (?, ?)
       ON DUPLICATE KEY UPDATE remaining = VALUES(remaining)`,
      [name, remaining],
    )
  }

  /** What it drops of HTML that it writes. */
  async dropped(): Promise<Dropped> {
    return {
      unknownAttributes: (await this.level('strip-attributes')) > 0,
      styles: (await this.level('strip-styles')) > 0,
    }
  }

  /** How it stands with one that lasts. */
  async level(name: Lasting): Promise<number> {
    return Number(
      (
        await firstRow<{ remaining: number }>(
          this.#pool,
          `SELECT remaining
           FROM misbehaviours
           WHERE name = ?`,
          [name],
        )
      )?.remaining ?? 0,
    )
  }

  /** Takes one of those that count down, if any is left. */
  async take(name: Exclude<Misbehaviour, Lasting>): Promise<boolean> {
    return (
      (
        await change(
          this.#pool,
          `UPDATE misbehaviours
           SET remaining = remaining - 1
           WHERE name = ? AND remaining > 0`,
          [name],
        )
      ).affected === 1
    )
  }
}
