import { readDocument, type Problem, type Result } from '../document/index.ts'
import { Course } from './course.ts'

type Fields = Readonly<Record<string, unknown>>
const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value)

/** A module of `wickerframe.course/1` held its items and its inner modules in two lists; the items were met first. */
const moduleFrom1 = (module: unknown): unknown => {
  if (!isFields(module)) return module
  const { items = [], modules = [], ...rest } = module
  // A list that is none is told where it stands, not lost.
  if (!Array.isArray(items) || !Array.isArray(modules)) return module
  return { ...rest, kind: 'module', children: [...items, ...modules.map(moduleFrom1)] }
}

/** A course document of the version before as one of this; anything else is given back as it is. */
export const upgradedCourse = (document: unknown): unknown =>
  isFields(document) && document['schema'] === 'wickerframe.course/1'
    ? {
        ...document,
        schema: 'wickerframe.course/2',
        ...(Array.isArray(document['modules'])
          ? { modules: document['modules'].map(moduleFrom1) }
          : {}),
      }
    : document

/** Reads a course document of this version or the one before. @returns the course, or every problem in it with its place */
export const readCourse = (document: unknown): Result<Course, Problem[]> =>
  readDocument(Course, upgradedCourse(document))
