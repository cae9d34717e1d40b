import { z } from 'zod'
import type { CheckResult, Outcome } from '../check/index.ts'
import { ruleById } from '../rules/index.ts'
import type { Template } from '../template/index.ts'

/** How a crossing of the weave is drawn. */
export const Strand = z.enum([
  'met',
  'open-must',
  'open-should',
  'waived',
  'cannot-tell',
  'not-due-yet',
  'not-applicable',
])
export type Strand = z.output<typeof Strand>

/** One column of the weave: a stretch of the course, or a group of rules about the course as a whole. */
export const WeaveColumn = z.strictObject({ key: z.string(), title: z.string() })
export type WeaveColumn = z.output<typeof WeaveColumn>

/** What one course shows in one column, worst first counts included. */
export const Crossing = z.strictObject({ column: z.string(), strands: z.array(Strand) })
export type Crossing = z.output<typeof Crossing>

export const strandOf = (outcome: Outcome): Strand => {
  // What is for information only asks for nothing; what somebody answered for is met.
  if (outcome.strength === 'may') return 'not-applicable'
  if (outcome.waivedBy !== undefined) return 'waived'
  if (outcome.attestedBy !== undefined) return 'met'
  switch (outcome.outcome) {
    case 'passed':
      return 'met'
    case 'failed':
      return outcome.strength === 'must' ? 'open-must' : 'open-should'
    case 'cannot-tell':
      return 'cannot-tell'
    case 'not-due-yet':
      return 'not-due-yet'
    case 'inapplicable':
    case 'untested':
      return 'not-applicable'
  }
}

/**
 * The columns of the weave for a set of templates: the home page, every module that does not repeat, every week up to
 * `lastWeek`, and the names of the whole course.
 */
export const weaveColumns = (templates: readonly Template[], lastWeek: number): WeaveColumn[] => {
  const columns = new Map<string, WeaveColumn>([['home', { key: 'home', title: 'Home' }]])
  const add = (key: string, title: string) => {
    if (!columns.has(key)) columns.set(key, { key, title })
  }
  for (const template of templates)
    for (const part of template.parts)
      if (part.kind === 'module' && !part.repeat && part.position === 'first')
        add(`module:${part.key}`, part.name)
  for (let week = 1; week <= lastWeek; week++) add(`week:${week}`, `Week ${week}`)
  for (const template of templates)
    for (const part of template.parts)
      if (part.kind === 'module' && !part.repeat && part.position !== 'first')
        add(`module:${part.key}`, part.name)
  add('names', 'Names')
  add('course', 'Course')
  return [...columns.values()]
}

/** Which column an outcome belongs to. `moduleOf` gives the key of the module a part stands in. */
export const columnOf = (outcome: Outcome, moduleOf: ReadonlyMap<string, string>): string => {
  const rule = ruleById(outcome.rule)
  if (rule?.group === 'names') return 'names'
  if (outcome.place.week !== null) return `week:${outcome.place.week}`
  if (rule?.group === 'home page' || outcome.place.part === 'home-page') return 'home'
  const module = outcome.place.part === null ? undefined : moduleOf.get(outcome.place.part)
  return module === undefined ? 'course' : `module:${module}`
}

/** Key of the top module of every part of a template. */
export const modulesOfParts = (template: Template): Map<string, string> => {
  const modules = new Map<string, string>()
  const visit = (parts: Template['parts'], top: string | null) => {
    for (const part of parts) {
      const owner = top ?? (part.kind === 'module' ? part.key : null)
      if (owner !== null) modules.set(part.key, owner)
      if (part.kind === 'module') visit(part.items, owner)
    }
  }
  visit(template.parts, null)
  return modules
}

const drawOrder: Strand[] = [
  'open-must',
  'open-should',
  'cannot-tell',
  'waived',
  'met',
  'not-due-yet',
]

/** At most so many strands for a longer list, each standing for a run of requirements and drawn as the worst of them. */
export const sampleStrands = (strands: readonly Strand[], most = mostStrands): Strand[] => {
  if (strands.length <= most) return [...strands]
  const size = strands.length / most
  return Array.from({ length: most }, (_, i) => {
    const run = strands.slice(Math.floor(i * size), Math.floor((i + 1) * size))
    return drawOrder.find((mark) => run.includes(mark)) ?? 'met'
  })
}
const mostStrands = 12

/**
 * The crossings of one course, column by column: in a column each of its requirements is one strand, in the order of
 * the check; requirements that do not apply draw none, and a long column is sampled so that nothing open is lost.
 */
export const weaveRow = (
  result: CheckResult,
  template: Template,
  columns: readonly WeaveColumn[],
): Crossing[] => {
  const modules = modulesOfParts(template)
  const byColumn = new Map<string, Strand[]>()
  for (const outcome of result.outcomes) {
    const strand = strandOf(outcome)
    if (strand === 'not-applicable') continue
    const key = columnOf(outcome, modules)
    const known = byColumn.get(key)
    if (known) known.push(strand)
    else byColumn.set(key, [strand])
  }
  return columns.map(({ key }) => ({
    column: key,
    strands: sampleStrands(byColumn.get(key) ?? []),
  }))
}
