import {
  isCourseModule,
  type Course,
  type CourseChild,
  type CourseItem,
  type CourseModule,
} from '../course.ts'
import type { ShownFile } from '../../files/index.ts'
import type { CourseQuestion } from '../courseQuestion.ts'

/** What the platform decides when it carries changes out. */
export interface PlatformHand {
  newId: (kind: 'module' | 'item' | 'question') => string
  urlOf: (id: string) => string
  /** Where a course leads to a file that its pages hand out; without it, links stay as they are sent. */
  urlOfFile?: (file: ShownFile) => string
  /** How the platform writes HTML it is given. */
  rewriteHtml: (html: string) => string
}

/** Why a change could not be made. */
export interface ChangeRefusal {
  code: 'gone' | 'student-work' | 'unknown-reference' | 'not-empty' | 'too-many'
  message: string
}

/** Where something stands: the list that holds it, and its place there from 0. */
interface Stand<Child extends CourseChild> {
  list: CourseChild[]
  index: number
  child: Child
}

/** A course while a change set is carried out on it. */
export class ChangeSite {
  readonly course: Course
  readonly hand: PlatformHand
  /** The platform's id for each client id made so far. */
  readonly ids: Record<string, string> = {}
  /** Items whose page was written; its links are resolved when everything is there. */
  readonly writtenPages: CourseItem[] = []
  /** Questions that were written, each with the name of its item; their links are resolved then as well. */
  readonly writtenQuestions: { question: CourseQuestion; of: string }[] = []

  /** @param course changed in place */
  constructor(course: Course, hand: PlatformHand) {
    this.course = course
    this.hand = hand
  }

  /** The platform's id of what a change speaks of. */
  idOf(id: string): string {
    return id.startsWith('ref:') ? (this.ids[id.slice(4)] ?? id) : id
  }

  /** Mints the platform's id of what a client id makes. */
  mint(clientId: string, kind: 'module' | 'item' | 'question'): string {
    return (this.ids[clientId] = this.hand.newId(kind))
  }

  item(id: string): Stand<CourseItem> | null {
    return this.#find(this.idOf(id), (child): child is CourseItem => !isCourseModule(child))
  }

  module(id: string): Stand<CourseModule> | null {
    return this.#find(this.idOf(id), isCourseModule)
  }

  has(id: string): boolean {
    return this.item(id) !== null || this.module(id) !== null
  }

  /** The list in which something of a kind stands: of a module, or at the top for null; null where there is no such module. */
  listOf(kind: 'module' | 'item', module: string | null): CourseChild[] | null {
    if (module !== null) return this.module(module)?.child.children ?? null
    return kind === 'module' ? this.course.modules : this.course.stray
  }

  gone(id: string): ChangeRefusal {
    return {
      code: id.startsWith('ref:') ? 'unknown-reference' : 'gone',
      message: `there is no ${id} in course ${this.course.id}`,
    }
  }

  /** A platform may give a module and an item one id: it is looked for among what is meant. */
  #find<Child extends CourseChild>(
    id: string,
    isMeant: (child: CourseChild) => child is Child,
  ): Stand<Child> | null {
    const within = (list: CourseChild[]): Stand<Child> | null => {
      for (const [index, child] of list.entries()) {
        if (child.id === id && isMeant(child)) return { list, index, child }
        const inside = isCourseModule(child) ? within(child.children) : null
        if (inside) return inside
      }
      return null
    }
    return within(this.course.modules) ?? within(this.course.stray)
  }
}

/** Puts something into a list at a place from 0; null: last. */
export const insert = <T>(list: T[], at: number | null, child: T): void => {
  list.splice(at ?? list.length, 0, child)
}

/** Sets an optional field, or drops it where null is wanted; undefined leaves it. */
export const setOrDrop = <T extends object, K extends keyof T>(
  of: T,
  field: K,
  value: T[K] | null | undefined,
): void => {
  if (value === null) delete of[field]
  else if (value !== undefined) of[field] = value
}
