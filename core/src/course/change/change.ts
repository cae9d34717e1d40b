import { z } from 'zod'
import { schemasOf } from '../../document/index.ts'
import type { ChangeTraits } from './kind.ts'
import { definedChanges } from './kinds.ts'

/**
 * One change of a course on the platform. An id is the platform's own, or `ref:CLIENT_ID` for what an earlier change of
 * the same set made. Links inside `html` may be written `ref:CLIENT_ID` or `item:PLATFORM_ID`, and to a file whose bytes the
 * platform holds `handout:SHA-256/NAME`, the name percent-encoded (RFC 3986).
 */
export const Change = z.discriminatedUnion('change', schemasOf(definedChanges))
export type Change = z.output<typeof Change>
export const mostChanges = 5000

const kinds: ReadonlyMap<string, ChangeTraits<Change>> = new Map(
  definedChanges.map((defined): [string, ChangeTraits<Change>] => [
    defined.change,
    defined as ChangeTraits<Change>,
  ]),
)

/** All that is known of the kind of a change. @throws for a name that is none: a schema lets no other through */
export const changeKind = ({ change }: Change): ChangeTraits<Change> => {
  const found = kinds.get(change)
  if (!found) throw new Error(`there is no kind of change named ${change}`)
  return found
}
