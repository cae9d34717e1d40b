import { z } from 'zod'
import {
  canonicalJson,
  failure,
  readDocument,
  success,
  type Problem,
  type Result,
} from '../document/index.ts'
import { Block } from './block.ts'
import { isModule, Part, type Exception, type Module } from './part.ts'
import { everyPart, homePageKey, partsWithin, Template } from './template.ts'
import { Key } from './words.ts'

const At = z.number().int().min(0).max(2000)
const Parent = Key.nullable().describe(
  'Key of the module it stands in, or of the exception that adds it; null for the top',
)

const FieldPath = z
  .array(z.string().min(1).max(80))
  .min(1)
  .max(6)
  .describe('Names of fields, outermost first; in a list, the key of the one meant')

/**
 * One edit of a draft. `set` names the value it replaces, so that two people who change the same field are told, and
 * two who change different fields are not.
 */
export const TemplateEdit = z.discriminatedUnion('edit', [
  z.strictObject({
    edit: z.literal('set-field'),
    part: Key.nullable(),
    field: FieldPath,
    was: z.unknown(),
    value: z.unknown(),
  }),
  z.strictObject({ edit: z.literal('add-part'), parent: Parent, at: At, part: Part }),
  z.strictObject({ edit: z.literal('remove-part'), part: Key }),
  z.strictObject({ edit: z.literal('move-part'), part: Key, parent: Parent, at: At }),
  z.strictObject({
    edit: z.literal('set-block'),
    part: Key,
    block: Key,
    field: z.string().max(40),
    was: z.unknown(),
    value: z.unknown(),
  }),
  z.strictObject({ edit: z.literal('add-block'), part: Key, at: At, block: Block }),
  z.strictObject({ edit: z.literal('remove-block'), part: Key, block: Key }),
  z.strictObject({ edit: z.literal('move-block'), part: Key, block: Key, at: At }),
])
export type TemplateEdit = z.output<typeof TemplateEdit>

/** Why an edit could not be made. `clash` carries what stands there now and what was to be written. */
export type EditProblem =
  | { code: 'clash'; where: string; present: unknown; wanted: unknown }
  | { code: 'gone'; where: string }
  | { code: 'not-allowed'; where: string; problems: Problem[] }

interface Place {
  list: Part[]
  index: number
  parent: string | null
}

const find = (list: Part[], key: string, parent: string | null = null): Place | null => {
  for (const [index, part] of list.entries()) {
    if (part.key === key) return { list, index, parent }
    if (!isModule(part)) continue
    const inside = find(part.items, key, part.key)
    if (inside) return inside
    for (const exception of part.exceptions) {
      const added = find(exception.add, key, exception.key)
      if (added) return added
    }
  }
  return null
}
const findException = (list: readonly Part[], key: string): Exception | null => {
  for (const part of list) {
    if (!isModule(part)) continue
    for (const exception of part.exceptions) {
      if (exception.key === key) return exception
      const inside = findException(exception.add, key)
      if (inside) return inside
    }
    const inside = findException(part.items, key)
    if (inside) return inside
  }
  return null
}

const same = (a: unknown, b: unknown): boolean =>
  canonicalJson(a ?? null) === canonicalJson(b ?? null)

type Fields = Record<string, unknown>
const isRecord = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
const isList = (value: unknown): value is Fields[] => Array.isArray(value) && value.every(isRecord)
/** Parts and blocks have edits of their own; a template keeps its identity and what it is built on. */
const neverSet = new Set([
  'schema',
  'key',
  'extends',
  'parts',
  'items',
  'blocks',
  'add',
  'version',
  '__proto__',
  'constructor',
  'prototype',
])

const inside = (at: unknown, step: string): unknown =>
  isList(at)
    ? at.find((one) => one['key'] === step)
    : isRecord(at) && Object.hasOwn(at, step)
      ? at[step]
      : undefined
const valueOf = (root: unknown, field: readonly string[]): unknown =>
  field.reduce<unknown>(inside, root)
/** Writes one field; a value of null or undefined takes the field, or the one of a list, away. False when its way leads nowhere. */
const writeField = (root: Fields, field: readonly string[], value: unknown): boolean => {
  let at: unknown = root
  for (const step of field.slice(0, -1)) {
    let next = inside(at, step)
    if (next === undefined && isRecord(at)) next = at[step] = {}
    at = next
  }
  const last = field.at(-1) ?? ''
  const gone = value === null || value === undefined
  if (Array.isArray(at)) {
    const index = at.findIndex((one) => isRecord(one) && one['key'] === last)
    if (index >= 0) at.splice(index, 1, ...(gone ? [] : [value]))
    else if (!gone) at.push(value)
    return true
  }
  if (!isRecord(at)) return false
  if (gone) delete at[last]
  else at[last] = value
  return true
}

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
type FieldEdit = Extract<TemplateEdit, { edit: 'set-field' }>
const concernsItself = (edit: FieldEdit): boolean =>
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
    const put = (now: Part) => list.map((one, j) => (i === j ? now : one))
    if (part.key === key) return put(change(part))
    if (!isModule(part)) continue
    const items = withPart(part.items, key, change)
    if (items) return put({ ...part, items })
    for (const [e, exception] of part.exceptions.entries()) {
      const add = withPart(exception.add, key, change)
      if (add)
        return put({
          ...part,
          exceptions: part.exceptions.map((one, j) => (j === e ? { ...one, add } : one)),
        })
    }
  }
  return null
}

/** An edit of one part's own field: only that part is made and read anew, so that the work does not grow with the template. */
const applyOwnField = (
  template: Template,
  edit: FieldEdit,
): Result<{ template: Template; inverse: TemplateEdit }, EditProblem> => {
  const where = `${edit.part ?? ''} ${edit.field.join('.')}`
  let problem: EditProblem | null = null
  let present: unknown
  let written: unknown
  const parts = withPart(template.parts, edit.part ?? '', (part) => {
    const own: Fields = isModule(part)
      ? { ...part, items: [], exceptions: [] }
      : { ...part, blocks: [] }
    const bare = structuredClone(own)
    present = valueOf(bare, edit.field)
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
    written = valueOf(now, edit.field)
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

/** Whether a key is that of a module, or of a part or exception anywhere in it. */
const holds = (module: Module, key: string): boolean =>
  module.key === key ||
  partsWithin([module]).some(
    (part) =>
      part.key === key || (isModule(part) && part.exceptions.some((one) => one.key === key)),
  )

/**
 * Makes one edit of a template.
 * @returns the new template and the edit that takes it back, or why it could not be made; the input is left as it was
 */
export const applyEdit = (
  template: Template,
  edit: TemplateEdit,
): Result<{ template: Template; inverse: TemplateEdit }, EditProblem> => {
  if (edit.edit === 'set-field' && concernsItself(edit)) return applyOwnField(template, edit)
  const next = structuredClone(template)
  const gone = (where: string) => failure<EditProblem>({ code: 'gone', where })
  const blocksOf = (key: string): Block[] | null => {
    if (key === homePageKey) return next.home.blocks
    const place = find(next.parts, key)
    const part = place?.list[place.index]
    return part && !isModule(part) ? part.blocks : null
  }
  const listOf = (parent: string | null): Part[] | null => {
    if (parent === null) return next.parts
    const place = find(next.parts, parent)
    const part = place?.list[place.index]
    return part
      ? isModule(part)
        ? part.items
        : null
      : (findException(next.parts, parent)?.add ?? null)
  }
  let inverse: TemplateEdit

  switch (edit.edit) {
    case 'set-field': {
      const where = `${edit.part ?? 'template'} ${edit.field.join('.')}`
      const place =
        edit.part === null || edit.part === homePageKey ? null : find(next.parts, edit.part)
      const target: unknown =
        edit.part === null ? next : edit.part === homePageKey ? next.home : place?.list[place.index]
      if (!isRecord(target)) return gone(where)
      if (edit.field.some((step) => neverSet.has(step)))
        return failure({
          code: 'not-allowed',
          where,
          problems: [
            {
              code: 'not-allowed',
              path: `/${edit.field.join('/')}`,
              found: edit.field.join('.'),
              expected: 'a field that can be set; parts and blocks have edits of their own',
            },
          ],
        })
      const last = edit.field.at(-1) ?? ''
      // An entry of a list stands under its own key, or it could not be found again.
      if (
        isList(valueOf(target, edit.field.slice(0, -1))) &&
        isRecord(edit.value) &&
        edit.value['key'] !== last
      )
        return failure({
          code: 'not-allowed',
          where,
          problems: [
            {
              code: 'not-allowed',
              path: `/${edit.field.join('/')}/key`,
              found: String(edit.value['key']),
              expected: `an entry whose key is ${last}`,
            },
          ],
        })
      const present = valueOf(target, edit.field)
      if (!same(present, edit.was) && !same(present, edit.value))
        return failure({ code: 'clash', where, present, wanted: edit.value })
      if (!writeField(target, edit.field, edit.value)) return gone(where)
      inverse = { ...edit, was: edit.value, value: present }
      break
    }
    case 'set-block': {
      const where = `${edit.part} ${edit.block} ${edit.field}`
      const block: unknown = blocksOf(edit.part)?.find((one) => one.key === edit.block)
      if (!isRecord(block)) return gone(where)
      if (neverSet.has(edit.field))
        return failure({
          code: 'not-allowed',
          where,
          problems: [
            {
              code: 'not-allowed',
              path: `/${edit.field}`,
              found: edit.field,
              expected: 'a field of the block that can be set',
            },
          ],
        })
      const present = block[edit.field]
      if (!same(present, edit.was) && !same(present, edit.value))
        return failure({ code: 'clash', where, present, wanted: edit.value })
      writeField(block, [edit.field], edit.value)
      inverse = { ...edit, was: edit.value, value: present }
      break
    }
    case 'add-part': {
      const list = listOf(edit.parent)
      if (!list) return gone(edit.parent ?? 'template')
      list.splice(edit.at, 0, structuredClone(edit.part))
      inverse = { edit: 'remove-part', part: edit.part.key }
      break
    }
    case 'remove-part': {
      const place = find(next.parts, edit.part)
      const [part] = place?.list.splice(place.index, 1) ?? []
      if (!place || !part) return gone(edit.part)
      inverse = { edit: 'add-part', parent: place.parent, at: place.index, part }
      break
    }
    case 'move-part': {
      const from = find(next.parts, edit.part)
      const part = from?.list[from.index]
      if (!from || !part) return gone(edit.part)
      if (edit.parent !== null && isModule(part) && holds(part, edit.parent))
        return failure({
          code: 'not-allowed',
          where: edit.part,
          problems: [
            {
              code: 'not-allowed',
              path: '/parent',
              found: edit.parent,
              expected: 'a module that does not stand inside the one being moved',
            },
          ],
        })
      from.list.splice(from.index, 1)
      const list = listOf(edit.parent)
      if (!list) return gone(edit.parent ?? 'template')
      list.splice(edit.at, 0, part)
      inverse = { edit: 'move-part', part: edit.part, parent: from.parent, at: from.index }
      break
    }
    case 'add-block': {
      const blocks = blocksOf(edit.part)
      if (!blocks) return gone(edit.part)
      blocks.splice(edit.at, 0, structuredClone(edit.block))
      inverse = { edit: 'remove-block', part: edit.part, block: edit.block.key }
      break
    }
    case 'remove-block': {
      const blocks = blocksOf(edit.part)
      const index = blocks?.findIndex((one) => one.key === edit.block) ?? -1
      const [block] = index >= 0 ? (blocks?.splice(index, 1) ?? []) : []
      if (!block) return gone(`${edit.part} ${edit.block}`)
      inverse = { edit: 'add-block', part: edit.part, at: index, block }
      break
    }
    case 'move-block': {
      const blocks = blocksOf(edit.part)
      const index = blocks?.findIndex((one) => one.key === edit.block) ?? -1
      const [block] = index >= 0 ? (blocks?.splice(index, 1) ?? []) : []
      if (!blocks || !block) return gone(`${edit.part} ${edit.block}`)
      blocks.splice(edit.at, 0, block)
      inverse = { edit: 'move-block', part: edit.part, block: edit.block, at: index }
      break
    }
  }
  const read = readDocument(Template, next)
  if (!read.ok)
    return failure({
      code: 'not-allowed',
      where: 'part' in edit && typeof edit.part === 'string' ? edit.part : 'template',
      problems: read.problems,
    })
  const made = read.value
  if (inverse.edit === 'set-field') {
    const target =
      inverse.part === null
        ? made
        : inverse.part === homePageKey
          ? made.home
          : everyPart(made).find((part) => part.key === inverse.part)
    return success({ template: made, inverse: { ...inverse, was: valueOf(target, inverse.field) } })
  }
  if (inverse.edit === 'set-block') {
    const part = everyPart(made).find((one) => one.key === inverse.part)
    const blocks =
      inverse.part === homePageKey ? made.home.blocks : part && !isModule(part) ? part.blocks : []
    return success({
      template: made,
      inverse: {
        ...inverse,
        was: valueOf(
          blocks.find((block) => block.key === inverse.block),
          [inverse.field],
        ),
      },
    })
  }
  return success({ template: made, inverse })
}
