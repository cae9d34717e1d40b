import {
  documentHand,
  analysePage,
  Base,
  baseOfCourse,
  carryOut,
  type Course,
  emptyBase,
  everyCourseItem,
  everyModule,
  expandForPlan,
  Facts,
  failure,
  identityOf,
  instanceOf,
  isShell,
  keptBodies,
  localDateOf,
  pairCourse,
  planDeployment,
  planDocument,
  readCourse,
  readDocument,
  Template,
  withRecordedIdentity,
  type Decisions,
  type ExpectedCourse,
  type KeptBodies,
  type Problem,
  type Result,
} from '@wickerframe/core'
import { z } from 'zod'
import type { Command, Streams } from '../command.ts'
import { exitCode } from '../exitCode.ts'
import { readCourseFile } from '../readCourseFile.ts'
import { readJsonFile } from '../readJsonFile.ts'
import { dateOption, orUnusable, wanted, wordOption } from '../given.ts'
import { Unusable } from '../unusable.ts'
import { writeJsonFile } from '../writeJsonFile.ts'

const AnyDocument = z.looseObject({ schema: z.string() })

/** What was last deployed: a base document, or the course as it stood right after the deployment. */
const readBase = async (
  path: string,
  streams: Streams,
): Promise<Result<{ base: Base } | { deployed: Course }>> => {
  const read = await readJsonFile(path, AnyDocument, streams)
  if (!read.ok) return read
  if (read.value.schema.startsWith('wickerframe.course/')) {
    const course = readCourse(read.value)
    return course.ok ? { ok: true, value: { deployed: course.value } } : course
  }
  if (read.value.schema !== 'wickerframe.base/1')
    return failure<Problem[]>([
      {
        code: 'not-allowed',
        path: '/schema',
        found: JSON.stringify(read.value.schema),
        expected:
          '"wickerframe.base/1", or "wickerframe.course/2" for the course as it stood right after the deployment',
      },
    ])
  const base = readDocument(Base, read.value)
  return base.ok ? { ok: true, value: { base: base.value } } : base
}

/** Which part instance is which module or item of a course: by recorded identity where there is any, else by pairing. */
const placedIn = (expected: ExpectedCourse, course: Course): Map<string, string> => {
  const recorded = [
    ...everyModule(course.modules),
    ...everyCourseItem(course).map(({ item }) => item),
  ].flatMap(({ recordedAs, id }) =>
    recordedAs ? [[instanceOf(recordedAs.part, recordedAs.repetition), id] as const] : [],
  )
  if (recorded.length > 0) return new Map(recorded)
  return new Map(
    pairCourse(expected, course, (item) =>
      item.html === null ? null : analysePage(item.html),
    ).pairs.map((pair) => [pair.expected, pair.found]),
  )
}

export const plan: Command = async (values, streams) => {
  const { out } = streams
  const toFile = wanted('to', values.to)
  const factsFile = wanted('facts', values.facts)
  const courseFile = wanted('course', values.course)
  const rule = wordOption('conflicts', values.conflicts, ['keep', 'take', 'leave'], 'leave')
  const to = orUnusable(toFile, await readJsonFile(toFile, Template, streams))
  const facts = orUnusable(factsFile, await readJsonFile(factsFile, Facts, streams))
  const course = orUnusable(courseFile, await readCourseFile(courseFile, streams))
  const from =
    values.from === undefined
      ? null
      : orUnusable(values.from, await readJsonFile(values.from, Template, streams))
  const onDate = dateOption('on', values.on) ?? localDateOf(course.readAt, facts.term.timeZone)
  const given =
    values.base === undefined ? null : orUnusable(values.base, await readBase(values.base, streams))
  const expanded = (file: string, template: Template, known: Course, since: Base): ExpectedCourse =>
    orUnusable(
      `${file} with ${factsFile}`,
      expandForPlan({ template, facts, course: known, base: since }),
    )

  let base = emptyBase()
  let bodies: KeptBodies = keptBodies()
  if (given && 'base' in given) {
    base = given.base
    bodies = keptBodies(base.bodies)
  } else if (given || from) {
    if (!from)
      throw new Unusable(
        '--from is missing: a course document as --base tells what the platform held, not what was sent; name the template it was deployed from',
      )
    const deployed = given && 'deployed' in given ? given.deployed : course
    const expected = expanded(values.from ?? '', from, deployed, base)
    if (!isShell(deployed))
      base = baseOfCourse(expected, deployed, placedIn(expected, deployed), bodies, onDate)
  }
  const expected = expanded(toFile, to, course, base)
  const adopt = base.parts.length === 0 && !isShell(course) ? placedIn(expected, course) : undefined
  const decisions: Decisions = { rule: rule === 'leave' ? null : rule, single: {} }
  const made = planDeployment({
    expected,
    course,
    base,
    bodies,
    onDate,
    decisions,
    ...(adopt ? { adopt } : {}),
  })

  if (values['write-course'] !== undefined || values['write-base'] !== undefined) {
    const done = carryOut(made, course, base, documentHand(course), bodies)
    if (!done.ok)
      throw new Unusable(
        `the plan cannot be carried out on ${courseFile}: ${done.problems.message}`,
      )
    await writeJsonFile(
      values['write-course'],
      withRecordedIdentity(done.value.course, identityOf(done.value.base)),
    )
    const spoken = new Set(
      done.value.base.parts.flatMap((entry) => [
        ...(entry.page === null ? [] : [entry.page]),
        ...entry.blocks.flatMap((block) => [
          block.sent,
          ...(block.page === null ? [] : [block.page]),
        ]),
      ]),
    )
    await writeJsonFile(values['write-base'], {
      ...done.value.base,
      bodies: Object.fromEntries(Object.entries(bodies.all()).filter(([id]) => spoken.has(id))),
    })
  }
  out(`${JSON.stringify(planDocument(made), null, 2)}\n`)
  return exitCode.fine
}
