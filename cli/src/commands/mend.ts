import {
  checkCourse,
  Facts,
  localDateOf,
  mendCourse,
  rules,
  Template,
  type Finding,
  type FindingPlace,
} from '@wickerframe/core'
import type { Command } from '../command.ts'
import { exitCode } from '../exitCode.ts'
import type { MendsDocument } from '../mendsDocument.ts'
import { readCourseFile } from '../readCourseFile.ts'
import { readJsonFile } from '../readJsonFile.ts'
import { dateOption, orUnusable, wanted } from '../given.ts'
import { Unusable } from '../unusable.ts'
import { writeJsonFile } from '../writeJsonFile.ts'

const listed = (option: string | undefined): ReadonlySet<string> | null =>
  option === undefined
    ? null
    : new Set(
        option
          .split(',')
          .map((word) => word.trim())
          .filter((word) => word !== ''),
      )

/** Applies mends that a machine can know to a course document: those of chosen rules or findings, or all of them. */
export const mend: Command = async (values, streams) => {
  const { out } = streams
  const templateFile = wanted('template', values.template)
  const factsFile = wanted('facts', values.facts)
  const courseFile = wanted('course', values.course)
  const template = orUnusable(templateFile, await readJsonFile(templateFile, Template, streams))
  const facts = orUnusable(factsFile, await readJsonFile(factsFile, Facts, streams))
  const course = orUnusable(courseFile, await readCourseFile(courseFile, streams))
  const asOf =
    dateOption('as-of', values['as-of']) ?? localDateOf(course.readAt, facts.term.timeZone)
  const chosenRules = listed(values.rules)
  const chosenFindings = listed(values.findings)
  const strange = [...(chosenRules ?? [])].find((id) => !rules.some((rule) => rule.id === id))
  if (strange !== undefined)
    throw new Unusable(
      `--rules: found ${strange}; expected ids of rules, with commas between them; wickerframe rules lists them`,
    )
  const before = orUnusable(
    `${templateFile} with ${factsFile}`,
    checkCourse({ template, facts, course, asOf }),
  )
  const unknown = [...(chosenFindings ?? [])].find(
    (fingerprint) =>
      !before.findings.some(
        (finding) =>
          finding.fingerprint === fingerprint ||
          finding.places.some((place) => place.fingerprint === fingerprint),
      ),
  )
  if (unknown !== undefined)
    throw new Unusable(
      `--findings: found ${unknown}; expected fingerprints of findings that are open as of ${asOf}`,
    )
  const isChosen = (finding: Finding, place: FindingPlace): boolean =>
    (chosenRules === null || chosenRules.has(finding.rule)) &&
    (chosenFindings === null ||
      chosenFindings.has(finding.fingerprint) ||
      chosenFindings.has(place.fingerprint))
  const {
    mended,
    left,
    after,
    course: result,
  } = orUnusable(courseFile, mendCourse({ template, facts, course, asOf }, isChosen))
  const document: MendsDocument = {
    schema: 'wickerframe.mends/1',
    asOf,
    mended,
    left,
    before: before.counts,
    after: after.counts,
  }
  await writeJsonFile(values['write-course'], result)
  out(`${JSON.stringify(document, null, 2)}\n`)
  return exitCode.fine
}
