import { checkCourse, Facts, localDateOf, Template } from '@wickerframe/core'
import { checkText } from '../checkText.ts'
import type { Command } from '../command.ts'
import { exitCode } from '../exitCode.ts'
import { readCourseFile } from '../readCourseFile.ts'
import { readJsonFile } from '../readJsonFile.ts'
import { dateOption, orUnusable, wanted, wordOption } from '../given.ts'

export const check: Command = async (values, streams) => {
  const { out } = streams
  const templateFile = wanted('template', values.template)
  const factsFile = wanted('facts', values.facts)
  const courseFile = wanted('course', values.course)
  const format = wordOption('format', values.format, ['text', 'json'], 'text')
  const template = orUnusable(templateFile, await readJsonFile(templateFile, Template, streams))
  const facts = orUnusable(factsFile, await readJsonFile(factsFile, Facts, streams))
  const course = orUnusable(courseFile, await readCourseFile(courseFile, streams))
  const asOf =
    dateOption('as-of', values['as-of']) ?? localDateOf(course.readAt, facts.term.timeZone)
  const result = orUnusable(
    `${templateFile} with ${factsFile}`,
    checkCourse({ template, facts, course, asOf }),
  )
  // Pairs are always part of the JSON; --pairs adds them to the text.
  out(
    format === 'json'
      ? `${JSON.stringify(result, null, 2)}\n`
      : checkText(result, values.pairs === true),
  )
  if (result.counts.openMusts > 0) return exitCode.openMusts
  return result.counts.cannotTell > 0 ? exitCode.untold : exitCode.fine
}
