import { z } from 'zod'
import { isLine } from '../document/index.ts'
import { parseFormat } from '../naming/index.ts'

/**
 * Item kinds as Common Cartridge 1.3 has them: web content, file, web link, discussion, assignment, assessment, LTI link, and an
 * untitled grouping. And an event, as iCalendar has it (RFC 5545): a lab, a sitting, a visit, which is dated and no work.
 */
export const itemKinds = [
  'page',
  'file',
  'web-link',
  'discussion',
  'assignment',
  'assessment',
  'event',
  'tool-link',
  'heading',
] as const
export const ItemKind = z.enum(itemKinds)
export type ItemKind = z.output<typeof ItemKind>

/** How binding a part or rule is, as RFC 2119 uses the words. */
export const strengths = ['must', 'should', 'may'] as const
export const Strength = z.enum(strengths)
export type Strength = z.output<typeof Strength>
/** Whether the first asks for less than the second. */
export const isWeaker = (one: Strength, other: Strength): boolean =>
  strengths.indexOf(one) > strengths.indexOf(other)

export const audiences = ['students', 'staff', 'backstage'] as const
export const Audience = z
  .enum(audiences)
  .describe(
    'staff: never visible to students; backstage: out of lists and navigation, but reachable',
  )
export type Audience = z.output<typeof Audience>

export const Key = z
  .string()
  .regex(/^[a-z0-9]+(-[a-z0-9]+)*$/, 'a key of lower-case letters, digits and single hyphens')
  .max(80)

/** A naming format; mistakes are told with their position and a suggestion. */
export const Format = z.string().superRefine((source, context) => {
  if (!isLine(source))
    context.addIssue({
      code: 'custom',
      message: 'one line, without line ends and control characters',
    })
  const result = parseFormat(source)
  if (result.ok) return
  for (const problem of result.problems)
    context.addIssue({
      code: 'custom',
      message: `a naming format: ${problem.message} at character ${problem.at + 1}${problem.suggestion ? `; ${problem.suggestion}` : ''}`,
    })
})

/** HTML as written by people; it is stored as it is and never run. */
export const Html = z.string().max(500_000)
export const Basis = z
  .string()
  .max(500)
  .describe('The quality criterion or policy the requirement rests on, in words')
