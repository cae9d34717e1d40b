import { expandCourse, Facts, Template } from '@wickerframe/core'
import type { Command } from '../command.ts'
import { exitCode } from '../exitCode.ts'
import { expectedDocument, expectedText } from '../expectedDocument.ts'
import { readJsonFile } from '../readJsonFile.ts'
import { dateOption, orUnusable, wanted, wordOption } from '../given.ts'

export const expand: Command = async (values, streams) => {
  const { out } = streams
  const templateFile = wanted('template', values.template)
  const factsFile = wanted('facts', values.facts)
  const format = wordOption('format', values.format, ['json', 'text'], 'json')
  const template = orUnusable(templateFile, await readJsonFile(templateFile, Template, streams))
  const facts = orUnusable(factsFile, await readJsonFile(factsFile, Facts, streams))
  const onDate = dateOption('on', values.on) ?? facts.term.firstDay
  const expected = orUnusable(factsFile, expandCourse({ template, facts }))
  out(
    format === 'json'
      ? `${JSON.stringify(expectedDocument(expected, onDate), null, 2)}\n`
      : expectedText(expected),
  )
  return exitCode.fine
}
