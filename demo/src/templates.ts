import { readFileSync } from 'node:fs'
import { readDocument, Template } from '@wickerframe/core'

export const templateFiles = [
  'harbour-standard.json',
  'distance-standard.json',
  'short-course-standard.json',
] as const

/** A template document of the demo, as it stands in its file. */
export const demoTemplate = (file: (typeof templateFiles)[number]): Template => {
  const read = readDocument(
    Template,
    JSON.parse(readFileSync(new URL(`../templates/${file}`, import.meta.url), 'utf8')),
  )
  if (!read.ok) throw new Error(`${file}: ${JSON.stringify(read.problems)}`)
  return read.value
}
