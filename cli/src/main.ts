import { parseArgs } from 'node:util'
import { checkCourse, Course, expandCourse, Facts, isPlainDate, localDateOf, Template, type Problem, type Result } from '@wickerframe/core'
import { checkText } from './checkText.ts'
import { expectedDocument, expectedText } from './expectedDocument.ts'
import { readJsonFile } from './readJsonFile.ts'

const usage = `usage:
  wickerframe expand --template T.json --facts facts.json [--on YYYY-MM-DD] [--format json|text]
  wickerframe check  --template T.json --facts facts.json --course course.json
                     [--as-of YYYY-MM-DD] [--format text|json] [--pairs]

check exits with 0: ready; 1: open musts; 3: no open must, but something could not be told; 2: unusable input.
docs/cli.md describes the documents and the output.
`

export const exitCode = { ready: 0, openMusts: 1, unusable: 2, untold: 3 } as const

/** Where the command line writes; a test gives its own. */
export interface Streams {
  out: (text: string) => void
  error: (text: string) => void
}

class Unusable extends Error {}

const problemLines = (file: string, problems: readonly Problem[]): string =>
  problems
    .slice(0, 20)
    .map((problem) => `${file}${problem.path === '' ? '' : `, at ${problem.path}`}: found ${problem.found}; expected ${problem.expected}`)
    .concat(problems.length > 20 ? [`and ${problems.length - 20} more`] : [])
    .join('\n')

const orUnusable = <T>(file: string, result: Result<T>): T => {
  if (!result.ok) throw new Unusable(problemLines(file, result.problems))
  return result.value
}

const options = {
  template: { type: 'string' }, facts: { type: 'string' }, course: { type: 'string' },
  'as-of': { type: 'string' }, on: { type: 'string' }, format: { type: 'string' }, pairs: { type: 'boolean', default: false }, help: { type: 'boolean', default: false },
} as const

const wanted = (name: string, value: string | undefined): string => {
  if (value === undefined) throw new Unusable(`--${name} is missing\n\n${usage}`)
  return value
}
const dateOption = (name: string, value: string | undefined): string | undefined => {
  if (value !== undefined && !isPlainDate(value)) throw new Unusable(`--${name}: found ${value}; expected a date that exists, written YYYY-MM-DD`)
  return value
}
const formatOption = (value: string | undefined, fallback: 'text' | 'json'): 'text' | 'json' => {
  if (value === undefined || value === 'text' || value === 'json') return value ?? fallback
  throw new Unusable(`--format: found ${value}; expected text or json`)
}

const run = async (args: readonly string[], { out }: Streams): Promise<number> => {
  let parsed
  try {
    parsed = parseArgs({ args: [...args], options, allowPositionals: true, strict: true })
  } catch (cause) {
    throw new Unusable(`${cause instanceof Error ? cause.message : String(cause)}\n\n${usage}`)
  }
  const { values, positionals } = parsed
  const [command, ...rest] = positionals
  if (values.help) {
    out(usage)
    return exitCode.ready
  }
  if ((command !== 'expand' && command !== 'check') || rest.length > 0) throw new Unusable(`${command === undefined ? 'no command given' : `unknown command ${positionals.join(' ')}`}\n\n${usage}`)
  const template = orUnusable(wanted('template', values.template), await readJsonFile(wanted('template', values.template), Template))
  const factsFile = wanted('facts', values.facts)
  const facts = orUnusable(factsFile, await readJsonFile(factsFile, Facts))

  if (command === 'expand') {
    const onDate = dateOption('on', values.on) ?? facts.term.firstDay
    const expected = orUnusable(factsFile, expandCourse({ template, facts }))
    out(formatOption(values.format, 'json') === 'json' ? `${JSON.stringify(expectedDocument(expected, onDate), null, 2)}\n` : expectedText(expected))
    return exitCode.ready
  }
  const courseFile = wanted('course', values.course)
  const format = formatOption(values.format, 'text')
  const course = orUnusable(courseFile, await readJsonFile(courseFile, Course))
  const asOf = dateOption('as-of', values['as-of']) ?? localDateOf(course.readAt, facts.term.timeZone)
  const result = orUnusable(`${wanted('template', values.template)} with ${factsFile}`, checkCourse({ template, facts, course, asOf }))
  // Pairs are always part of the JSON; --pairs adds them to the text.
  out(format === 'json' ? `${JSON.stringify(result, null, 2)}\n` : checkText(result, values.pairs))
  if (result.counts.openMusts > 0) return exitCode.openMusts
  return result.counts.cannotTell > 0 ? exitCode.untold : exitCode.ready
}

/** Runs one command. @returns its exit code */
export const main = async (args: readonly string[], streams: Streams = { out: (text) => void process.stdout.write(text), error: (text) => void process.stderr.write(text) }): Promise<number> => {
  try {
    return await run(args, streams)
  } catch (cause) {
    if (!(cause instanceof Unusable)) throw cause
    streams.error(`wickerframe: ${cause.message}\n`)
    return exitCode.unusable
  }
}
