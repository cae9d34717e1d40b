import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'

/** Files of the college: the form of the syllabus, one that somebody filled in, and what helps to plan one's weeks. */
export const demoFiles = [
  'syllabus-form.docx',
  'syllabus-filled-in.docx',
  'study-planner.xlsx',
  'study-planner.pdf',
] as const
export type DemoFile = (typeof demoFiles)[number]

/** A file of the college. @returns `content`: its SHA-256 in hexadecimal digits */
export const demoFile = (name: DemoFile): { bytes: Buffer; content: string } => {
  const bytes = readFileSync(new URL(`../files/${name}`, import.meta.url))
  return { bytes, content: createHash('sha256').update(bytes).digest('hex') }
}
