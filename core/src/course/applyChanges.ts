import { failure, success, type Result } from '../document/index.ts'
import type { Change } from './change.ts'
import { everyModule, type Course, type CourseItem, type CourseModule } from './course.ts'

/** Why a change of a set could not be made; none of the set is then. */
export interface ChangeProblem {
  code: 'gone' | 'student-work' | 'unknown-reference' | 'not-empty'
  /** Index of the change in its set. */
  at: number
  message: string
}

/** Sets an optional field, or drops it where null is wanted; undefined leaves it. */
const setOrDrop = <T extends object, K extends keyof T>(
  of: T,
  field: K,
  value: T[K] | null | undefined,
): void => {
  if (value === null) delete of[field]
  else if (value !== undefined) of[field] = value
}

/** What the platform decides when it carries changes out. */
export interface PlatformHand {
  newId: (kind: 'module' | 'item') => string
  urlOf: (id: string) => string
  /** How the platform writes HTML it is given. */
  rewriteHtml: (html: string) => string
}

/**
 * Carries out an ordered change set: all of it, or nothing.
 * @returns the course after it, and the id the platform gave to each client id; the input is left as it was
 */
export const applyChanges = (
  course: Course,
  changes: readonly Change[],
  hand: PlatformHand,
): Result<{ course: Course; ids: Record<string, string> }, ChangeProblem> => {
  const next = structuredClone(course)
  const ids: Record<string, string> = {}
  const writtenHtml: CourseItem[] = []
  const idOf = (id: string): string => (id.startsWith('ref:') ? (ids[id.slice(4)] ?? id) : id)
  const listOf = (id: string): { list: CourseItem[]; index: number } | null => {
    for (const list of [...everyModule(next.modules).map((module) => module.items), next.stray]) {
      const index = list.findIndex((item) => item.id === idOf(id))
      if (index >= 0) return { list, index }
    }
    return null
  }
  const moduleListOf = (
    id: string,
    within: CourseModule[] = next.modules,
  ): { list: CourseModule[]; index: number } | null => {
    const index = within.findIndex((module) => module.id === idOf(id))
    if (index >= 0) return { list: within, index }
    for (const module of within) {
      const inside = moduleListOf(id, module.modules)
      if (inside) return inside
    }
    return null
  }
  const itemsOf = (module: string | null): CourseItem[] | null => {
    if (module === null) return next.stray
    const place = moduleListOf(module)
    return place?.list[place.index]?.items ?? null
  }
  const insert = <T>(list: T[], at: number | null, one: T) => list.splice(at ?? list.length, 0, one)

  for (const [at, change] of changes.entries()) {
    const problem = (code: ChangeProblem['code'], message: string) =>
      failure<ChangeProblem>({ code, at, message })
    const gone = (id: string) =>
      problem(
        id.startsWith('ref:') ? 'unknown-reference' : 'gone',
        `there is no ${id} in course ${course.id}`,
      )
    switch (change.change) {
      case 'set-course':
        if (change.name !== undefined) next.name = change.name
        if (change.label !== undefined) next.label = change.label
        if (change.published !== undefined) next.published = change.published
        if (change.timeZone !== undefined) next.timeZone = change.timeZone
        if (change.opensAt !== undefined) next.opensAt = change.opensAt
        if (change.closesAt !== undefined) next.closesAt = change.closesAt
        setOrDrop(next, 'settings', change.settings)
        setOrDrop(next, 'grading', change.grading)
        break
      case 'set-navigation':
        next.navigation = change.navigation
        break
      case 'set-home':
        if (!listOf(change.item)) return gone(change.item)
        next.homePage = idOf(change.item)
        break
      case 'create-module': {
        const parent = change.parent === null ? null : moduleListOf(change.parent)
        if (change.parent !== null && !parent) return gone(change.parent)
        const id = (ids[change.clientId] = hand.newId('module'))
        insert(parent?.list[parent.index]?.modules ?? next.modules, change.at, {
          id,
          name: change.fields.name,
          published: change.fields.published ?? true,
          opensAt: change.fields.opensAt ?? null,
          url: hand.urlOf(id),
          items: [],
          modules: [],
        })
        break
      }
      case 'create-item': {
        const list = itemsOf(change.module)
        if (!list) return gone(change.module ?? '')
        const id = (ids[change.clientId] = hand.newId('item'))
        const {
          name,
          published,
          opensAt,
          dueAt,
          closesAt,
          points,
          category,
          html,
          target,
          work,
          rubric,
        } = change.fields
        const item: CourseItem = {
          id,
          kind: change.kind,
          name,
          published: published ?? true,
          opensAt: opensAt ?? null,
          dueAt: dueAt ?? null,
          closesAt: closesAt ?? null,
          points: points ?? null,
          category: category ?? null,
          html: html ?? null,
          url: hand.urlOf(id),
          target: target ?? null,
          ...(work ? { work } : {}),
          ...(rubric ? { rubric } : {}),
          studentWork: false,
        }
        if (html !== undefined) writtenHtml.push(item)
        insert(list, change.at, item)
        break
      }
      case 'set-module': {
        const place = moduleListOf(change.id)
        const module = place?.list[place.index]
        if (!module) return gone(change.id)
        Object.assign(module, change.fields)
        break
      }
      case 'set-item': {
        const place = listOf(change.id)
        const item = place?.list[place.index]
        if (!item) return gone(change.id)
        const { work, rubric, ...fields } = change.fields
        // Whoever plans a change of where it leads may not have seen the work that came in meanwhile.
        if (fields.target !== undefined && fields.target !== item.target && item.studentWork)
          return problem(
            'student-work',
            `students have work in “${item.name}”, so it leads where it led`,
          )
        Object.assign(item, fields)
        setOrDrop(item, 'work', work)
        setOrDrop(item, 'rubric', rubric)
        if (change.fields.html !== undefined) writtenHtml.push(item)
        break
      }
      case 'move-module': {
        const place = moduleListOf(change.id)
        const [module] = place?.list.splice(place.index, 1) ?? []
        if (!place || !module) return gone(change.id)
        insert(place.list, change.at, module)
        break
      }
      case 'move-item': {
        const to = itemsOf(change.module)
        const place = listOf(change.id)
        if (!to) return gone(change.module ?? '')
        const [item] = place?.list.splice(place.index, 1) ?? []
        if (!item) return gone(change.id)
        insert(to, change.at, item)
        break
      }
      case 'remove-item': {
        const place = listOf(change.id)
        const item = place?.list[place.index]
        if (!place || !item) return gone(change.id)
        if (item.studentWork)
          return problem('student-work', `students have work in “${item.name}”, so it stays`)
        place.list.splice(place.index, 1)
        if (next.homePage === item.id) next.homePage = null
        break
      }
      case 'remove-module': {
        const place = moduleListOf(change.id)
        const module = place?.list[place.index]
        if (!place || !module) return gone(change.id)
        if (module.items.length > 0 || module.modules.length > 0)
          return problem('not-empty', `“${module.name}” still holds something; empty it first`)
        place.list.splice(place.index, 1)
        break
      }
      case 'duplicate-item': {
        const place = listOf(change.id)
        const item = place?.list[place.index]
        if (!place || !item) return gone(change.id)
        const id = (ids[change.clientId] = hand.newId('item'))
        const { recordedAs: _, ...rest } = item
        // As is common: a copy lands at the end of the list, under its old name, and nobody has worked in it yet.
        place.list.push({ ...rest, id, url: hand.urlOf(id), studentWork: false })
        break
      }
    }
  }
  // Links are resolved when everything is there, so that a page may lead to what is made after it.
  for (const item of writtenHtml) {
    const unknown: string[] = []
    const linked = (item.html ?? '').replace(
      /(href|src)="(ref|item):([^"]+)"/g,
      (whole, attribute: string, scheme: string, id: string) => {
        const target = scheme === 'ref' ? ids[id] : listOf(id) || moduleListOf(id) ? id : undefined
        if (target === undefined) unknown.push(`${scheme}:${id}`)
        return target === undefined ? whole : `${attribute}="${hand.urlOf(target)}"`
      },
    )
    if (unknown.length > 0)
      return failure({
        code: 'unknown-reference',
        at: changes.length - 1,
        message: `“${item.name}” links to ${unknown.join(', ')}, which is not there`,
      })
    item.html = hand.rewriteHtml(linked)
  }
  return success({ course: next, ids })
}
