import type { Pool } from 'mysql2/promise'
import { runPulse } from './runs.ts'

const pulseMilliseconds = 400
const mostOfOnePerson = 6

/** Whether a run has come to its end, by its pulse. */
const hasEnded = (pulse: string): boolean =>
  /^(done|cancelled):/.test(pulse) && !/(waiting|at-work|sent|to-plan)[1-9]/.test(pulse)

interface Followed {
  listeners: Set<(pulse: string | null) => void>
  last: string
  timer: NodeJS.Timeout
}

/**
 * The pulses of runs that somebody follows: however many follow a run, the database is asked once for it at a time. A person
 * has a few streams at most.
 */
export class Pulses {
  readonly #pool: Pool
  readonly #runs = new Map<number, Followed>()
  readonly #streams = new Map<number, number>()

  constructor(pool: Pool) {
    this.#pool = pool
  }

  /** Takes one of a person's few streams. @returns what gives it back; null when they have no more */
  take(personId: number): (() => void) | null {
    const taken = this.#streams.get(personId) ?? 0
    if (taken >= mostOfOnePerson) return null
    this.#streams.set(personId, taken + 1)
    let given = false
    return () => {
      if (given) return
      given = true
      const left = (this.#streams.get(personId) ?? 1) - 1
      if (left > 0) this.#streams.set(personId, left)
      else this.#streams.delete(personId)
    }
  }

  /**
   * Follows a run: its pulse now, then each other one, then null at its end.
   * @returns what stops it; null when there is no such run
   */
  async follow(
    runId: number,
    listener: (pulse: string | null) => void,
  ): Promise<(() => void) | null> {
    let run = this.#runs.get(runId)
    if (!run) {
      const first = await runPulse(this.#pool, runId)
      if (first === null) return null
      run = this.#runs.get(runId) ?? this.#begin(runId, first)
    }
    run.listeners.add(listener)
    listener(run.last)
    return () => {
      run.listeners.delete(listener)
      if (run.listeners.size === 0) this.#end(runId, run)
    }
  }

  #begin(runId: number, first: string): Followed {
    const run: Followed = { listeners: new Set(), last: first, timer: setTimeout(() => {}, 0) }
    const ask = async () => {
      const pulse = await runPulse(this.#pool, runId).catch(() => run.last)
      if (this.#runs.get(runId) !== run) return
      if (pulse !== null && pulse !== run.last) {
        run.last = pulse
        for (const listener of run.listeners) listener(pulse)
      }
      if (pulse === null || hasEnded(pulse)) this.#endTold(runId, run)
      else run.timer = setTimeout(() => void ask(), pulseMilliseconds)
    }
    run.timer = setTimeout(() => void ask(), pulseMilliseconds)
    this.#runs.set(runId, run)
    return run
  }

  /** Ends all that is followed, as when each run had ended. */
  endAll(): void {
    for (const [runId, run] of this.#runs) this.#endTold(runId, run)
  }

  #endTold(runId: number, run: Followed): void {
    this.#end(runId, run)
    for (const listener of run.listeners) listener(null)
  }

  #end(runId: number, run: Followed): void {
    clearTimeout(run.timer)
    if (this.#runs.get(runId) === run) this.#runs.delete(runId)
  }
}
