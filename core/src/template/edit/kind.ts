import type { z } from 'zod'
import type { Result } from '../../document/index.ts'
import type { Template } from '../template.ts'
import type { EditProblem } from './problem.ts'
import type { EditSite } from './site.ts'

/** What is known of a kind of edit apart from its schema. */
export interface EditTraits<Body = unknown> {
  /** Makes the edit on a copy of the template. @returns the edit that takes it back, of whatever kind, or why it cannot be made */
  apply(edit: Body, site: EditSite): Result<EditInverse, EditProblem>
}

/** An edit that takes another back, as data. */
export type EditInverse = { edit: string } & Record<string, unknown>

export const defineEdit = <const Kind extends string, Schema extends z.ZodType>(
  edit: Kind,
  schema: Schema,
  traits: EditTraits<z.output<Schema>>,
) => ({ edit, schema, ...traits })

/** The template after an edit, and the edit that takes it back. */
export interface Edited<Edit> {
  template: Template
  inverse: Edit
}
