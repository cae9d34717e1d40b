import { existsSync, type Dirent } from 'node:fs'
import { readdir, stat } from 'node:fs/promises'
import { basename, dirname, join } from 'node:path'
import { Unusable } from './unusable.ts'

/** The documents that one course is checked with; null: none is beside it, and none was given. */
export interface CourseFiles {
  course: string
  facts: string | null
  template: string | null
}
interface Given {
  facts: string | undefined
  template: string | undefined
}

/** `NAV-110-course.json`, or `course.json` by itself in a folder. */
const courseName = /^(.*[-.])?course\.json$/

/** A document that stands beside a course and belongs to it, where it does. */
const beside = (course: string, kind: 'facts' | 'template'): string | null => {
  const match = courseName.exec(basename(course))
  if (!match) return null
  const file = join(dirname(course), `${match[1] ?? ''}${kind}.json`)
  return existsSync(file) ? file : null
}

const coursesIn = async (folder: string): Promise<string[]> => {
  const entries: Dirent[] = await readdir(folder, { withFileTypes: true })
  const found = await Promise.all(
    entries.map(async (entry) => {
      const path = join(folder, entry.name)
      if (entry.isDirectory()) return coursesIn(path)
      return entry.isFile() && courseName.test(entry.name) ? [path] : []
    }),
  )
  return found.flat().sort()
}

/**
 * Every course that files and folders name, each once, with the facts and template beside it or those given.
 * @throws Unusable for what is not there, and for a folder that holds no course
 */
export const courseFiles = async (
  named: readonly string[],
  given: Given,
): Promise<CourseFiles[]> => {
  const courses = new Set<string>()
  for (const path of named) {
    const found = await stat(path).catch(() => null)
    if (!found) throw new Unusable(`${path}: found no such file or folder`)
    const inside = found.isDirectory() ? await coursesIn(path) : [path]
    if (inside.length === 0)
      throw new Unusable(
        `${path}: found no course in this folder; expected files named NAME-course.json`,
      )
    for (const course of inside) courses.add(course)
  }
  return [...courses].map((course) => ({
    course,
    facts: beside(course, 'facts') ?? given.facts ?? null,
    template: beside(course, 'template') ?? given.template ?? null,
  }))
}
