import { canonicalJson } from '../../document/index.ts'

export const same = (a: unknown, b: unknown): boolean =>
  canonicalJson(a ?? null) === canonicalJson(b ?? null)

export type Fields = Record<string, unknown>
export const isRecord = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
export const isList = (value: unknown): value is Fields[] =>
  Array.isArray(value) && value.every(isRecord)
/** Parts and blocks have edits of their own; a template keeps its identity and what it is built on. */
export const neverSet = new Set([
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
    ? at.find((entry) => entry['key'] === step)
    : isRecord(at) && Object.hasOwn(at, step)
      ? at[step]
      : undefined
/** What stands at a way of field names and keys; undefined where it leads nowhere, which an edit that is sent says as null. */
export const valueOf = (root: unknown, field: readonly string[]): unknown =>
  field.reduce<unknown>(inside, root)
/** Writes one field; a value of null or undefined takes the field, or the one of a list, away. False when its way leads nowhere. */
export const writeField = (root: Fields, field: readonly string[], value: unknown): boolean => {
  let at: unknown = root
  for (const step of field.slice(0, -1)) {
    let next = inside(at, step)
    if (next === undefined && isRecord(at)) next = at[step] = {}
    at = next
  }
  const last = field.at(-1) ?? ''
  const gone = value === null || value === undefined
  if (Array.isArray(at)) {
    const index = at.findIndex((entry) => isRecord(entry) && entry['key'] === last)
    if (index >= 0) at.splice(index, 1, ...(gone ? [] : [value]))
    else if (!gone) at.push(value)
    return true
  }
  if (!isRecord(at)) return false
  if (gone) delete at[last]
  else at[last] = value
  return true
}
