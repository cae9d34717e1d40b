import type { TemplateFile } from '../file.ts'
import { anchor, escapeHtml, role } from './html.ts'

/** A link to a part, e.g. `ref:welcome`, and the part's name. */
export interface PartLink {
  href: string
  name: string
}
/** One line of a list of dates, both already in words. */
export interface DateLine {
  date: string
  text: string
  href: string | null
}
/** One line of the schedule: one repetition of a repeated module. */
export interface ScheduleLine {
  dates: string
  topic: string
  module: PartLink
  /** Who teaches it, where that is said of any module. */
  taughtBy: string | null
  due: DateLine[]
}

/** An outcome, and the modules that work towards it; a stretch of repetitions of one module is told by its first and last. */
export interface OutcomeLine {
  text: string
  modules: { first: PartLink; last: PartLink | null }[]
}

/** What a block's HTML is written with: the course it stands in, already worked out. */
export interface Writing {
  /** Whether the template has a house style: where it has none, pages are written without pieces that only carry styles. */
  hasStyle: boolean
  /** The template's HTML with fields filled in, and its links and images those of this course. */
  html: (html: string) => string
  /** Plain text as HTML, with fields filled in. */
  line: (text: string) => string
  /** What stands above a block, as HTML, with fields filled in; nothing is asked in it. */
  label: (text: string) => string
  /** A naming format as plain text. */
  name: (format: string) => string
  /** What was answered to a fill-in of course-wide scope, or null. */
  answerTo: (key: string) => string | null
  instructors: readonly { name: string; email: string }[]
  /** null when the part is not in this course. */
  linkTo: (partKey: string) => PartLink | null
  /** Links to what the page's own module holds. */
  moduleLinks: () => PartLink[]
  /** What is due in the page's own module, or the dates of the term. */
  keyDates: (of: 'module' | 'term') => DateLine[]
  schedule: () => ScheduleLine[]
  outcomes: () => OutcomeLine[]
  houseText: (key: string) => { key: string; title: string; html: string } | null
  /** A file of the template, and how this course leads to what it gets of it. */
  file: (key: string) => { file: TemplateFile; href: string } | null
  /** Under the name it is kept by on the platform. */
  image: (key: string) => { name: string; alternativeText: string } | null
}

/** What deployment writes for a block. */
export interface WrittenBlock {
  html: string
  /** What stands in a fill-in that is answered already. */
  answer: string | null
  /** Of a block that may be asked for: its pieces, HTML as it stands in it, each of which asks until it is answered. */
  pieces: readonly string[]
}
export const asWritten = (html: string, pieces: readonly string[] = []): WrittenBlock => ({
  html,
  answer: null,
  pieces,
})

/** @param writing where the day is to stand in a column of its own */
export const dateLineHtml = (line: DateLine, writing?: Writing): string =>
  `${writing?.hasStyle ? `<strong${role('date')}>${escapeHtml(line.date)}:</strong>` : `${escapeHtml(line.date)}:`} ${line.href === null ? escapeHtml(line.text) : anchor(line.href, line.text)}`
