import { z } from 'zod'
import { failure, readDocument, success, type Result } from '../../../document/index.ts'
import { isModule, Part } from '../../part.ts'
import { homePageKey, type Template } from '../../template.ts'
import { Key } from '../../words.ts'
import { fieldNoun } from '../fieldNoun.ts'
import { isList, isRecord, neverSet, same, valueOf, writeField, type Fields } from '../fields.ts'
import { defineEdit, type Edited } from '../kind.ts'
import { gone, notAllowed, type EditProblem } from '../problem.ts'
import { EditSite } from '../site.ts'

const FieldPath = z
  .array(z.string().min(1).max(80))
  .min(1)
  .max(6)
  .describe('Names of fields, outermost first; in a list, the key of the one meant')

/** Names the value it replaces, so that two people who change the same field are told, and two who change different fields are not. */
const schema = z.strictObject({
  edit: z.literal('set-field'),
  part: Key.nullable(),
  field: FieldPath,
  was: z.unknown(),
  value: z.unknown(),
})
export type SetField = z.output<typeof schema>

const whereOf = ({ part, field }: SetField, site: EditSite): string =>
  `${fieldNoun(field)} of ${site.nameOf(part)}`

export const setField = defineEdit('set-field', schema, {
  apply(edit, site) {
    const where = whereOf(edit, site)
    const target: unknown =
      edit.part === null
        ? site.template
        : edit.part === homePageKey
          ? site.template.home
          : site.part(edit.part)
    if (!isRecord(target)) return gone(where)
    if (edit.field.some((step) => neverSet.has(step)))
      return notAllowed(
        where,
        `/${edit.field.join('/')}`,
        edit.field.join('.'),
        'a field that can be set; parts and blocks have edits of their own',
      )
    const last = edit.field.at(-1) ?? ''
    // An entry of a list stands under its own key, or it could not be found again.
    if (
      isList(valueOf(target, edit.field.slice(0, -1))) &&
      isRecord(edit.value) &&
      edit.value['key'] !== last
    )
      return notAllowed(
        where,
        `/${edit.field.join('/')}/key`,
        String(edit.value['key']),
        `an entry whose key is ${last}`,
      )
    const present = valueOf(target, edit.field) ?? null
    if (!same(present, edit.was) && !same(present, edit.value))
      return failure<EditProblem>({ code: 'clash', where, present, wanted: edit.value })
    if (!writeField(target, edit.field, edit.value)) return gone(where)
    return success({ ...edit, was: edit.value ?? null, value: present })
  },
})

/** Fields of a part that concern nothing but the part: setting one cannot make the rest of the template wrong. */
const ownFields = new Set([
  'name',
  'strength',
  'audience',
  'repeat',
  'position',
  'span',
  'when',
  'may',
  'basis',
  'inGroup',
  'url',
  'acceptsInstead',
  'assesses',
  'settings',
])
/** Whether an edit is of one part's own field, and so cannot make the rest of the template wrong. */
export const concernsItself = (edit: SetField): boolean =>
  edit.part !== null &&
  edit.part !== homePageKey &&
  ownFields.has(edit.field[0] ?? '') &&
  !(edit.field[0] === 'settings' && (edit.field.length < 2 || edit.field[1] === 'rubric')) &&
  !edit.field.some((step) => neverSet.has(step))

/** The list with one part of it, at whatever depth, made anew; everything else is the very same. null when it is not there. */
const withPart = (
  list: readonly Part[],
  key: string,
  change: (part: Part) => Part,
): Part[] | null => {
  for (const [i, part] of list.entries()) {
    const put = (now: Part) => list.map((part, j) => (i === j ? now : part))
    if (part.key === key) return put(change(part))
    if (!isModule(part)) continue
    const items = withPart(part.items, key, change)
    if (items) return put({ ...part, items })
    for (const [e, exception] of part.exceptions.entries()) {
      const add = withPart(exception.add, key, change)
      if (add)
        return put({
          ...part,
          exceptions: part.exceptions.map((exception, j) =>
            j === e ? { ...exception, add } : exception,
          ),
        })
    }
  }
  return null
}

/** An edit of one part's own field: only that part is made and read anew, so that the work does not grow with the template. */
export const applyOwnField = (
  template: Template,
  edit: SetField,
): Result<Edited<SetField>, EditProblem> => {
  const where = whereOf(edit, new EditSite(template))
  let problem: EditProblem | null = null
  let present: unknown
  let written: unknown
  const parts = withPart(template.parts, edit.part ?? '', (part) => {
    const own: Fields = isModule(part)
      ? { ...part, items: [], exceptions: [] }
      : { ...part, blocks: [] }
    const bare = structuredClone(own)
    present = valueOf(bare, edit.field) ?? null
    if (!same(present, edit.was) && !same(present, edit.value))
      problem = { code: 'clash', where, present, wanted: edit.value }
    else if (!writeField(bare, edit.field, edit.value)) problem = { code: 'gone', where }
    if (problem) return part
    const read = readDocument(Part, bare)
    if (!read.ok) {
      problem = { code: 'not-allowed', where, problems: read.problems }
      return part
    }
    const now = read.value
    // As it was read: with what goes without saying filled in.
    written = valueOf(now, edit.field) ?? null
    return isModule(now) && isModule(part)
      ? { ...now, items: part.items, exceptions: part.exceptions }
      : !isModule(now) && !isModule(part)
        ? { ...now, blocks: part.blocks }
        : part
  })
  if (!parts) return failure({ code: 'gone', where })
  if (problem) return failure(problem)
  return success({
    template: { ...template, parts },
    inverse: { ...edit, was: written, value: present },
  })
}
