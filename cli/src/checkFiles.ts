import {
  checkCourse,
  Facts,
  localDateOf,
  Template,
  type CheckResult,
  type Result,
} from '@wickerframe/core'
import type { Streams } from './command.ts'
import type { CourseFiles } from './courseFiles.ts'
import { orUnusable } from './given.ts'
import { readCourseFile } from './readCourseFile.ts'
import { readJsonFile } from './readJsonFile.ts'
import { Unusable } from './unusable.ts'

/** A course that was checked, or why it could not be. */
export type Checked = { result: CheckResult } | { message: string }

type Input = Pick<Streams, 'input'>

/** Checks courses one after another; a template or facts that many share are read once. */
export const fileChecker = (input: Input) => {
  const templates = new Map<string, Promise<Result<Template>>>()
  const facts = new Map<string, Promise<Result<Facts>>>()
  const once = <T>(known: Map<string, Promise<T>>, file: string, read: () => Promise<T>) => {
    const there = known.get(file) ?? read()
    known.set(file, there)
    return there
  }
  /** @throws Unusable */
  const check = async (files: CourseFiles, asOf: string | undefined): Promise<CheckResult> => {
    const { course: courseFile, facts: factsFile, template: templateFile } = files
    if (templateFile === null)
      throw new Unusable(`${courseFile}: no template stands beside it; give one with --template`)
    if (factsFile === null)
      throw new Unusable(`${courseFile}: no facts stand beside it; give them with --facts`)
    const template = orUnusable(
      templateFile,
      await once(templates, templateFile, () => readJsonFile(templateFile, Template, input)),
    )
    const known = orUnusable(
      factsFile,
      await once(facts, factsFile, () => readJsonFile(factsFile, Facts, input)),
    )
    const course = orUnusable(courseFile, await readCourseFile(courseFile, input))
    return orUnusable(
      `${templateFile} with ${factsFile}`,
      checkCourse({
        template,
        facts: known,
        course,
        asOf: asOf ?? localDateOf(course.readAt, known.term.timeZone),
      }),
    )
  }
  return {
    check,
    /** One of many: what is wrong with it loses none of the others. */
    tryCheck: async (files: CourseFiles, asOf: string | undefined): Promise<Checked> => {
      try {
        return { result: await check(files, asOf) }
      } catch (cause) {
        if (cause instanceof Unusable) return { message: cause.message }
        throw cause
      }
    },
  }
}
