import { buffer } from 'node:stream/consumers'
import { parseArgs } from 'node:util'
import { options, type Command, type OptionName, type Streams } from './command.ts'
import { calendar } from './commands/calendar.ts'
import { check } from './commands/check.ts'
import { expand } from './commands/expand.ts'
import { mend } from './commands/mend.ts'
import { names } from './commands/names.ts'
import { plan } from './commands/plan.ts'
import { rules } from './commands/rules.ts'
import { exitCode } from './exitCode.ts'
import { Unusable } from './unusable.ts'

const usage = `usage:
  wickerframe expand   --template T.json --facts facts.json [--on YYYY-MM-DD] [--format json|text]
  wickerframe check    --template T.json --facts facts.json --course course.json
                       [--as-of YYYY-MM-DD] [--format text|json] [--pairs]
  wickerframe rules
  wickerframe mend     --template T.json --facts facts.json --course course.json [--as-of YYYY-MM-DD]
                       [--rules ID,ID] [--findings FINGERPRINT,FINGERPRINT] [--write-course out.json]
  wickerframe plan     [--from template-v1.json] --to template-v2.json --facts facts.json [--base base.json]
                       --course present.json [--conflicts keep|take] [--on YYYY-MM-DD]
                       [--write-course out.json] [--write-base base-after.json]
  wickerframe names    --format 'Week {week} · {dates} · {topic}' [--context context.json] < names.txt
  wickerframe names    --infer < names.txt
  wickerframe calendar --term term.json [--weeks 16] [--units 4] [--session CODE] [--next-term term.json]
                       [--meeting-days tuesday,thursday] [--opens-before DAYS] [--closes-after DAYS]

check exits with 0: ready; 1: open musts; 3: no open must, but something could not be told. All exit with 2 on unusable
input. docs/cli.md describes the documents and the output.
`

const commands: Readonly<Record<string, { run: Command; takes: readonly OptionName[] }>> = {
  expand: { run: expand, takes: ['template', 'facts', 'on', 'format'] },
  check: { run: check, takes: ['template', 'facts', 'course', 'as-of', 'format', 'pairs'] },
  rules: { run: rules, takes: [] },
  mend: {
    run: mend,
    takes: ['template', 'facts', 'course', 'as-of', 'rules', 'findings', 'write-course'],
  },
  plan: {
    run: plan,
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
  },
  names: { run: names, takes: ['format', 'context', 'infer'] },
  calendar: {
    run: calendar,
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
  },
}

const run = async (args: readonly string[], streams: Streams): Promise<number> => {
  let parsed
  try {
    parsed = parseArgs({ args: [...args], options, allowPositionals: true, strict: true })
  } catch (cause) {
    throw new Unusable(`${cause instanceof Error ? cause.message : String(cause)}\n\n${usage}`)
  }
  const { values, positionals } = parsed
  if (values.help) {
    streams.out(usage)
    return exitCode.fine
  }
  const [name, ...rest] = positionals
  const command = name !== undefined && Object.hasOwn(commands, name) ? commands[name] : undefined
  if (command === undefined || rest.length > 0)
    throw new Unusable(
      `${name === undefined ? 'no command given' : `unknown command ${positionals.join(' ')}`}\n\n${usage}`,
    )
  const stranger = Object.keys(values).find(
    (option) => !command.takes.some((taken) => taken === option),
  )
  if (stranger !== undefined) throw new Unusable(`${name} takes no --${stranger}\n\n${usage}`)
  return command.run(values, streams)
}

const processStreams: Streams = {
  out: (text) => void process.stdout.write(text),
  error: (text) => void process.stderr.write(text),
  input: () => buffer(process.stdin),
}

/** Runs one command. @returns its exit code */
export const main = async (
  args: readonly string[],
  streams: Streams = processStreams,
): Promise<number> => {
  try {
    return await run(args, streams)
  } catch (cause) {
    if (!(cause instanceof Unusable)) throw cause
    streams.error(`wickerframe: ${cause.message}\n`)
    return exitCode.unusable
  }
}
