import type { Pool } from 'mysql2/promise'
import { migrationsIn } from './files.ts'
import { recordedRuns } from './records.ts'

/** How a schema stands to the migrations that a program is made for; names of files, in order. */
export interface SchemaState {
  /** Not run yet. */
  pending: string[]
  /** Not run, though one that comes after it has. */
  outOfOrder: string[]
  /** Changed since they ran. */
  changed: string[]
  /** Run, and not among this program's, which has later ones. */
  missing: string[]
  /** Run by a newer program. */
  newer: string[]
}

/** Holds what has run against what there is. */
export const compareRuns = (
  ours: readonly { name: string; checksum: string }[],
  ran: ReadonlyMap<string, string>,
): SchemaState => {
  const names = new Set(ours.map(({ name }) => name))
  const lastOfOurs = ours.at(-1)?.name ?? ''
  const lastRun = ours.findLast(({ name }) => ran.has(name))?.name ?? ''
  const strangers = [...ran.keys()].filter((name) => !names.has(name)).sort()
  const notRun = ours.flatMap(({ name }) => (ran.has(name) ? [] : [name]))
  return {
    pending: notRun,
    outOfOrder: notRun.filter((name) => name < lastRun),
    changed: ours.flatMap(({ name, checksum }) =>
      ran.has(name) && ran.get(name) !== checksum ? [name] : [],
    ),
    missing: strangers.filter((name) => name < lastOfOurs),
    newer: strangers.filter((name) => name > lastOfOurs),
  }
}

export const schemaState = async (pool: Pool, folder: string): Promise<SchemaState> =>
  compareRuns(migrationsIn(folder), await recordedRuns(pool))

/** Why the migrations of a program do not go with a schema, whatever is still to be run; null when they do. */
export const schemaConflict = ({
  changed,
  missing,
  outOfOrder,
  newer,
}: SchemaState): string | null => {
  if (changed[0] !== undefined)
    return `migration ${changed[0]} was changed after it had run; restore it and add a new file instead`
  if (newer.length > 0)
    return `the schema is another program’s: it has ${newer.at(-1)}, which this one does not know; start the program that made it, or, where its data may go, one with a schema of its own (the demo: npm run demo -- --fresh)`
  if (missing[0] !== undefined)
    return `migration ${missing[0]} has run and is not there any more; restore it`
  if (outOfOrder[0] !== undefined)
    return `migration ${outOfOrder[0]} has not run, though one after it has; give it a number after all others`
  return null
}

/** Why a program may not work on a schema, in words; null when it is its own. */
export const schemaProblem = (state: SchemaState): string | null => {
  const [first] = state.pending
  return (
    schemaConflict(state) ??
    (first === undefined
      ? null
      : `the schema lacks ${state.pending.length === 1 ? first : `${state.pending.length} migrations, the first ${first}`}; run “npm run migrate” as a user who may change the schema`)
  )
}
