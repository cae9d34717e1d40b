import type { Command, OptionName } from './command.ts'

interface CommandEntry {
  /** Its arguments, line by line. */
  usage: readonly string[]
  about: string
  takes: readonly OptionName[]
  /** Whether files and folders may follow it. */
  takesFiles?: true
  /** Its code comes when it is run: help needs none of it. */
  load: () => Promise<Command>
}

/** Every command, in the order in which help shows them. A file named `-` is standard input. */
export const commandTable = {
  expand: {
    usage: ['--template T.json --facts facts.json [--on YYYY-MM-DD] [--format json|text]'],
    about: 'Prints the course that a template asks for, with names, dates and pages.',
    takes: ['template', 'facts', 'on', 'format'],
    load: async () => (await import('./commands/expand.ts')).expand,
  },
  check: {
    usage: [
      '--template T.json --facts facts.json --course course.json',
      '[--template T.json] [--facts facts.json] COURSE-OR-FOLDER ...',
      '[--as-of YYYY-MM-DD] [--format text|json|html|csv|sarif|earl] [--pairs]',
      '[--since earlier.json] [--jobs 2]',
    ],
    about:
      'Checks courses against their templates: one, or all that files and folders hold, on all cores. Beside NAME-course.json stand NAME-facts.json and NAME-template.json; where they do not, those given are taken. With --since, what is new and what is gone since an earlier --format json. Exits with 0: all ready; 1: open musts; 3: no open must, but something could not be told; 2: some could not be checked.',
    takes: ['template', 'facts', 'course', 'as-of', 'format', 'pairs', 'since', 'jobs'],
    takesFiles: true,
    load: async () => (await import('./commands/check.ts')).check,
  },
  rules: {
    usage: [''],
    about: 'Lists the rules that courses are checked by.',
    takes: [],
    load: async () => (await import('./commands/rules.ts')).rules,
  },
  mend: {
    usage: [
      '--template T.json --facts facts.json --course course.json [--as-of YYYY-MM-DD]',
      '[--rules ID,ID] [--findings FINGERPRINT,FINGERPRINT] [--write-course out.json]',
    ],
    about: 'Prints the changes that remove findings, as far as they can be worked out.',
    takes: ['template', 'facts', 'course', 'as-of', 'rules', 'findings', 'write-course'],
    load: async () => (await import('./commands/mend.ts')).mend,
  },
  plan: {
    usage: [
      '[--from template-v1.json] --to template-v2.json --facts facts.json [--base base.json]',
      '--course present.json [--conflicts keep|take] [--on YYYY-MM-DD]',
      '[--write-course out.json] [--write-base base-after.json]',
    ],
    about: 'Plans what a newer template changes in a course, with what its instructor wrote kept.',
    takes: [
      'from',
      'to',
      'facts',
      'base',
      'course',
      'conflicts',
      'on',
      'write-course',
      'write-base',
    ],
    load: async () => (await import('./commands/plan.ts')).plan,
  },
  names: {
    usage: [
      "--format 'Week {week} · {dates} · {topic}' [--context context.json] < names.txt",
      '--infer < names.txt',
    ],
    about: 'Reads names by a naming format, or finds the formats that names follow.',
    takes: ['format', 'context', 'infer'],
    load: async () => (await import('./commands/names.ts')).names,
  },
  calendar: {
    usage: [
      '--term term.json [--weeks 16] [--units 4] [--session CODE] [--next-term term.json]',
      '[--meeting-days tuesday,thursday] [--opens-before DAYS] [--closes-after DAYS]',
    ],
    about: 'Prints the weeks, units and days of class of a term.',
    takes: [
      'term',
      'next-term',
      'session',
      'weeks',
      'units',
      'meeting-days',
      'opens-before',
      'closes-after',
    ],
    load: async () => (await import('./commands/calendar.ts')).calendar,
  },
} as const satisfies Readonly<Record<string, CommandEntry>>

export type CommandName = keyof typeof commandTable
export const commandNamed = (name: CommandName): CommandEntry => commandTable[name]
export const isCommandName = (name: string): name is CommandName =>
  Object.hasOwn(commandTable, name)

const widest = Math.max(...Object.keys(commandTable).map((name) => name.length))

/** How a command is called; further lines stand under its first argument, unless each is a way of its own. */
const usageOf = (name: CommandName): string => {
  const { usage } = commandTable[name]
  const called = `  wickerframe ${name.padEnd(widest)}`
  const apart = name === 'names'
  return usage
    .map((line, i) => `${i === 0 || apart ? called : ' '.repeat(called.length)} ${line}`.trimEnd())
    .join('\n')
}

/** What is said of one command. */
export const helpOf = (name: CommandName): string =>
  `usage:\n${usageOf(name)}\n\n${commandTable[name].about} A file named - is standard input.\n`

/** What is said of all of them. */
export const helpOfAll = (): string =>
  `usage:\n${(Object.keys(commandTable) as CommandName[]).map(usageOf).join('\n')}
  wickerframe COMMAND --help
  wickerframe --version

A file named - is standard input. check exits with 0: ready; 1: open musts; 3: no open must, but something could not be told.
All exit with 2 on unusable input. docs/cli.md describes the documents and the output.
`
