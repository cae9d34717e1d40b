import { availableParallelism } from 'node:os'
import type { CheckResult } from '@wickerframe/core'
import { reportFormats, sinceEarlier, type Report } from '@wickerframe/interchange/report'
import { fileChecker, type Checked } from '../checkFiles.ts'
import { checkMany } from '../checkMany.ts'
import { checkText } from '../checkText.ts'
import type { Command, Streams, Values } from '../command.ts'
import { courseFiles } from '../courseFiles.ts'
import { exitCode } from '../exitCode.ts'
import { dateOption, numberOption, wanted, wordOption } from '../given.ts'
import { manyText } from '../manyText.ts'
import { readEarlier } from '../readEarlier.ts'
import { Unusable } from '../unusable.ts'
import { versionOf } from '../version.ts'

const formats = ['text', 'json', 'html', 'csv', 'sarif', 'earl'] as const
type Format = (typeof formats)[number]

/** The exit code a pipeline goes by: what could not be checked weighs most. */
const codeOf = (results: readonly CheckResult[], failed: number): number => {
  if (failed > 0) return exitCode.unusable
  if (results.some(({ counts }) => counts.openMusts > 0)) return exitCode.openMusts
  return results.some(({ counts }) => counts.cannotTell > 0) ? exitCode.untold : exitCode.fine
}

const print = async (
  report: Report,
  format: Exclude<Format, 'text'>,
  { out }: Streams,
): Promise<void> => {
  const written = await reportFormats[format].write(report)
  if (typeof written === 'string') out(written)
}

const reportOf = async (
  courses: readonly { at: string; checked: Checked }[],
  values: Values,
  streams: Streams,
): Promise<Report> => {
  const results = courses.flatMap(({ at, checked }) =>
    'result' in checked
      ? [{ result: checked.result, at, classSections: [], department: '', owner: '' }]
      : [],
  )
  return {
    title: results.length === 1 ? `${results[0]?.result.course.name}` : 'Courses checked',
    made: streams.now().toISOString(),
    version: versionOf(),
    courses: results,
    failed: courses.flatMap(({ at, checked }) =>
      'message' in checked ? [{ at, message: checked.message }] : [],
    ),
    since:
      values.since === undefined
        ? null
        : sinceEarlier(
            results.map(({ result }) => result),
            await readEarlier(values.since, streams),
          ),
  }
}

/** One course with its documents named one by one; as text and JSON it is told by itself. */
const checkOne = async (
  values: Values,
  streams: Streams,
  { asOf, format }: { asOf: string | undefined; format: Format },
): Promise<number> => {
  const files = {
    template: wanted('template', values.template),
    facts: wanted('facts', values.facts),
    course: wanted('course', values.course),
  }
  const result = await fileChecker(streams).check(files, asOf)
  const report = await reportOf([{ at: files.course, checked: { result } }], values, streams)
  // Pairs are always part of the JSON; --pairs adds them to the text.
  if (format === 'json') streams.out(`${JSON.stringify(result, null, 2)}\n`)
  else if (format !== 'text') await print(report, format, streams)
  else {
    streams.out(checkText(result, values.pairs === true))
    if (report.since) streams.out(`\n${manyText(report)}`)
  }
  return codeOf([result], 0)
}

export const check: Command = async (values, streams, named) => {
  const options = {
    asOf: dateOption('as-of', values['as-of']),
    format: wordOption('format', values.format, formats, 'text'),
  }
  if (named.length === 0) return checkOne(values, streams, options)
  if (values.course !== undefined)
    throw new Unusable('--course names one course; name it among the files instead')
  const jobs = numberOption('jobs', values.jobs, 1, 64) ?? availableParallelism()
  const courses = await courseFiles(named, { facts: values.facts, template: values.template })
  const whole = options.format === 'json' || options.format === 'earl'
  const checked = await checkMany(courses, { asOf: options.asOf, jobs, whole }, streams)
  const report = await reportOf(
    courses.flatMap(({ course }, i) => {
      const came = checked[i]
      return came ? [{ at: course, checked: came }] : []
    }),
    values,
    streams,
  )
  if (options.format === 'text') streams.out(manyText(report))
  else await print(report, options.format, streams)
  return codeOf(
    report.courses.map(({ result }) => result),
    report.failed.length,
  )
}
