import type { ExpectedPart } from '../expand/index.ts'

/** What a requirement is about: a part of the template, something no part expects, or the course itself. */
export type Subject =
  | { about: 'part'; part: ExpectedPart }
  | { about: 'found'; id: string; name: string }
  | { about: 'course' }
