import type { Block } from '../block.ts'
import { isModule, type Exception, type Module, type Part } from '../part.ts'
import { homePageKey, partsWithin, type Template } from '../template.ts'

/** Where a part stands: the list that holds it, its place there from 0, and the key of what holds the list. */
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

/** Whether a key is that of a module, or of a part or exception anywhere in it. */
export const holds = (module: Module, key: string): boolean =>
  module.key === key ||
  partsWithin([module]).some(
    (part) =>
      part.key === key ||
      (isModule(part) && part.exceptions.some((exception) => exception.key === key)),
  )

/** A template while an edit is made on it. */
export class EditSite {
  /** Changed in place. */
  readonly template: Template

  constructor(template: Template) {
    this.template = template
  }

  place(part: string): Place | null {
    return find(this.template.parts, part)
  }

  part(key: string): Part | null {
    const place = this.place(key)
    return place?.list[place.index] ?? null
  }

  /** The blocks of a page; null where there is no such page. */
  blocksOf(part: string): Block[] | null {
    if (part === homePageKey) return this.template.home.blocks
    const found = this.part(part)
    return found && !isModule(found) ? found.blocks : null
  }

  /** The parts in a module or of an exception, or at the top for null; null where there is neither. */
  listOf(parent: string | null): Part[] | null {
    if (parent === null) return this.template.parts
    const part = this.part(parent)
    if (part) return isModule(part) ? part.items : null
    return findException(this.template.parts, parent)?.add ?? null
  }

  /** What people call a part. */
  nameOf(part: string | null): string {
    if (part === null) return 'the template'
    if (part === homePageKey) return 'the home page'
    const name = this.part(part)?.name
    return name === undefined ? 'a part' : `“${name}”`
  }
}
