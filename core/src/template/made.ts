import type { Item, Module, Part } from './part.ts'
import { homePageKey, partsWithin, type Template } from './template.ts'
import { isModule } from './part.ts'
import type { ItemKind } from './words.ts'

/** Every key that a part or exception may not take. */
export const takenKeys = (template: Template): Set<string> =>
  new Set([
    homePageKey,
    ...partsWithin(template.parts).flatMap((part) => [
      part.key,
      ...(isModule(part) ? part.exceptions.map((exception) => exception.key) : []),
    ]),
  ])

const shared = {
  strength: 'must',
  audience: 'students',
  position: 'in-order',
  span: 'module',
  may: {},
  settings: {},
} as const

export const newModule = (key: string, name: string): Module => ({
  ...shared,
  kind: 'module',
  key,
  name,
  items: [],
  exceptions: [],
  objectives: [],
})
export const newItem = (kind: ItemKind, key: string, name: string): Item => ({
  ...shared,
  kind,
  key,
  name,
  blocks: [],
  acceptsInstead: [],
  inGroup: 'per-unit',
  assesses: [],
})
export const newPart = (kind: ItemKind | 'module', key: string, name: string): Part =>
  kind === 'module' ? newModule(key, name) : newItem(kind, key, name)
