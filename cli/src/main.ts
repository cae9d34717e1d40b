import { buffer } from 'node:stream/consumers'
import { parseArgs } from 'node:util'
import { options, type OptionName, type Streams } from './command.ts'
import { commandNamed, helpOf, helpOfAll, isCommandName } from './commandTable.ts'
import { exitCode } from './exitCode.ts'
import { Unusable } from './unusable.ts'
import { versionOf } from './version.ts'

const run = async (args: readonly string[], streams: Streams): Promise<number> => {
  let parsed
  try {
    parsed = parseArgs({ args: [...args], options, allowPositionals: true, strict: true })
  } catch (cause) {
    throw new Unusable(
      `${cause instanceof Error ? cause.message : String(cause)}\n\n${helpOfAll()}`,
    )
  }
  const { values, positionals } = parsed
  const [name, ...rest] = positionals
  if (values.version) {
    streams.out(`${versionOf()}\n`)
    return exitCode.fine
  }
  if (values.help && (name === undefined || isCommandName(name))) {
    streams.out(name === undefined ? helpOfAll() : helpOf(name))
    return exitCode.fine
  }
  if (
    name === undefined ||
    !isCommandName(name) ||
    (rest.length > 0 && !commandNamed(name).takesFiles)
  )
    throw new Unusable(
      `${name === undefined ? 'no command given' : `unknown command ${positionals.join(' ')}`}\n\n${helpOfAll()}`,
    )
  const { load, takes } = commandNamed(name)
  const stranger = Object.keys(values).find(
    (option) => !takes.some((taken: OptionName) => taken === option),
  )
  if (stranger !== undefined)
    throw new Unusable(`${name} takes no --${stranger}\n\n${helpOf(name)}`)
  return (await load())(values, { ...streams, input: readOnce(streams.input) }, rest)
}

/** Standard input is one thing: a command that asks for it twice was given `-` twice. */
const readOnce = (input: Streams['input']): Streams['input'] => {
  let wasRead = false
  return () => {
    if (wasRead)
      throw new Unusable('standard input can be read for one file only: “-” stands twice')
    wasRead = true
    return input()
  }
}

const processStreams: Streams = {
  out: (text) => void process.stdout.write(text),
  error: (text) => void process.stderr.write(text),
  input: () => buffer(process.stdin),
  now: () => new Date(),
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
