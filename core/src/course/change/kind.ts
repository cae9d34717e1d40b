import type { z } from 'zod'
import type { ChangeRefusal, ChangeSite } from './site.ts'
import type { ChangeInWords, ChangeWording } from './wording.ts'

/**
 * What is known of a kind of change apart from its schema. Taking changes back is no trait of a kind: an undo is planned from
 * how everything stood before, since people edit in between. Methods, not properties, so that a kind may be asked about
 * whatever change it is of.
 */
export interface ChangeTraits<Body = unknown> {
  /** Makes the change. @returns why it cannot be made, or null once it is made */
  apply(change: Body, site: ChangeSite): ChangeRefusal | null
  /** What it does, in the words of people who do not know what a change is; nothing where nothing differs. */
  words(change: Body, wording: ChangeWording): ChangeInWords[]
  /** What it writes, such as `ID/name`: two changes that write the same do not go into one round. */
  writes(change: Body): string[]
}

export const defineChange = <const Kind extends string, Schema extends z.ZodType>(
  change: Kind,
  schema: Schema,
  traits: ChangeTraits<z.output<Schema>>,
) => ({ change, schema, ...traits })
