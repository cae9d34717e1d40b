import { z } from 'zod'
import type { CheckResult, Finding, Outcome } from '../check/index.ts'
import { ruleById, rules } from '../rules/index.ts'
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

/** One letter for each, so that a row of hundreds of crossings is a short text. */
export const strandLetters: Readonly<Record<Strand, string>> = {
  met: 'm',
  'open-must': 'X',
  'open-should': 's',
  waived: 'w',
  'cannot-tell': '?',
  'not-due-yet': 'n',
  'not-applicable': '.',
}
const strandOfLetter = new Map(
  Object.entries(strandLetters).map(([strand, letter]) => [letter, strand as Strand]),
)
/** What a letter stands for; what nobody knows does not apply. */
export const strandAt = (letters: string, index: number): Strand =>
  strandOfLetter.get(letters[index] ?? '.') ?? 'not-applicable'

/** One column of the weave: a part in its stretch of the course, a rule about names or the home page, or a group of rules about the course as a whole. */
export const WeaveColumn = z.strictObject({
  key: z.string().describe('`week:2/overview`: the group, and the part or rule'),
  title: z.string(),
})
export type WeaveColumn = z.output<typeof WeaveColumn>

/** Columns that stand together: the home page, a module, a week, the names, the course. */
export const WeaveGroup = z.strictObject({
  key: z.string(),
  title: z.string(),
  columns: z.array(WeaveColumn).min(1),
})
export type WeaveGroup = z.output<typeof WeaveGroup>

/** What one course shows at each crossing it has: a letter by the key of its column. What does not apply is not there. */
export type Crossings = Readonly<Record<string, string>>

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

/** Which column an outcome belongs to. `moduleOf` gives the key of the module a part stands in. */
export const columnOf = (outcome: Outcome, moduleOf: ReadonlyMap<string, string>): string => {
  const rule = ruleById(outcome.rule)
  const { part, week } = outcome.place
  if (rule?.group === 'names') return `names/${outcome.rule}`
  if (week !== null) return `week:${week}/${part ?? outcome.rule}`
  if (rule?.group === 'home page') return `home/${outcome.rule}`
  if (part === 'home-page') return `home/${part}`
  const module = part === null ? undefined : moduleOf.get(part)
  return module === undefined ? `course/${rule?.group ?? outcome.rule}` : `module:${module}/${part}`
}
/** The group that a column stands in. */
export const groupOf = (column: string): string => column.slice(0, column.indexOf('/'))

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

/** What is drawn of several at one crossing: the one before the others. */
const worstFirst = ['X', 's', '?', 'w', 'm', 'n', '.']
/** The worst of some letters. */
export const worstOf = (letters: Iterable<string>): string => {
  let worst = worstFirst.length - 1
  for (const letter of letters) {
    const at = worstFirst.indexOf(letter)
    if (at >= 0 && at < worst) worst = at
  }
  return worstFirst[worst] ?? '.'
}

/** The crossings of one course: at each the worst of what is asked there. */
export const crossingsOf = (result: CheckResult, template: Template): Crossings => {
  const modules = modulesOfParts(template)
  const crossings: Record<string, string> = {}
  for (const outcome of result.outcomes) {
    const letter = strandLetters[strandOf(outcome)]
    if (letter === '.') continue
    const key = columnOf(outcome, modules)
    crossings[key] = key in crossings ? worstOf([crossings[key] ?? '.', letter]) : letter
  }
  return crossings
}

/**
 * The columns of the weave for some courses and their templates, in groups: the home page, the modules that come first, the weeks,
 * the other modules, names, and the course as a whole. In a group parts stand in the order of the templates, rules in their own.
 */
export const weaveGroups = (
  templates: readonly Template[],
  courses: readonly Crossings[],
): WeaveGroup[] => {
  const keys = new Set<string>()
  for (const crossings of courses) for (const key of Object.keys(crossings)) keys.add(key)
  const { titles, ranks } = describedBy(templates)
  const groups = new Map<string, WeaveColumn[]>()
  for (const key of keys) {
    const what = key.slice(key.indexOf('/') + 1)
    const columns = groups.get(groupOf(key)) ?? []
    columns.push({ key, title: titles.get(what) ?? what })
    groups.set(groupOf(key), columns)
  }
  const rankOf = ({ key }: { key: string }) =>
    ranks.get(key.slice(key.indexOf('/') + 1)) ?? ranks.size
  const modules = new Map<string, { title: string; first: boolean }>()
  for (const { parts } of templates)
    for (const part of parts)
      if (part.kind === 'module' && !modules.has(part.key))
        modules.set(part.key, { title: part.name, first: part.position === 'first' })
  return [...groups]
    .map(([key, columns]) => ({
      key,
      title: groupTitle(key, (module) => modules.get(module)?.title ?? module),
      columns: columns.sort((a, b) => rankOf(a) - rankOf(b) || (a.key < b.key ? -1 : 1)),
    }))
    .sort((a, b) => {
      const [x, y] = [a, b].map(({ key }) => {
        const [kind, of = ''] = key.split(':')
        if (kind === 'home') return [0, 0] as const
        if (kind === 'week') return [2, Number(of)] as const
        if (kind === 'module')
          return [modules.get(of)?.first ? 1 : 3, [...modules.keys()].indexOf(of)] as const
        return [kind === 'names' ? 4 : 5, 0] as const
      })
      return (x?.[0] ?? 0) - (y?.[0] ?? 0) || (x?.[1] ?? 0) - (y?.[1] ?? 0)
    })
}

/** What a group is called. */
export const groupTitle = (key: string, moduleTitle: (module: string) => string): string => {
  const [kind, of = ''] = key.split(':')
  if (kind === 'week') return `Week ${of}`
  if (kind === 'module') return moduleTitle(of)
  return { home: 'Home', names: 'Names', course: 'Course' }[kind ?? ''] ?? key
}

/** What parts and rules are called, and which comes before which. */
const describedBy = (
  templates: readonly Template[],
): { titles: Map<string, string>; ranks: Map<string, number> } => {
  const titles = new Map<string, string>()
  const visit = (parts: Template['parts']) => {
    for (const part of parts) {
      if (!titles.has(part.key))
        titles.set(part.key, part.kind === 'module' ? 'the module' : plainName(part.name, part.key))
      if (part.kind === 'module') visit(part.items)
    }
  }
  for (const { parts } of templates) visit(parts)
  titles.set('home-page', 'what stands on it')
  for (const { id, title, group } of rules) titles.set(id, title).set(group, group)
  return { titles, ranks: new Map([...titles.keys()].map((key, i) => [key, i])) }
}

/** A part's name without what is filled in for each course: `{code} · Discussion {week}: {topic}` is a discussion. */
const plainName = (format: string, key: string): string => {
  const words = format
    .replace(/\{[^}]*\}/g, ' ')
    .replace(/[^\p{L}\p{N}’' -]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
  return words === '' ? key : words.slice(0, 60)
}

/** The letters of one course along columns; where it has no crossing, what does not apply. */
export const lettersAlong = (crossings: Crossings, columns: readonly WeaveColumn[]): string =>
  columns.map(({ key }) => crossings[key] ?? '.').join('')

/** Findings whose requirement stands in a column of the weave, or in a group of columns, with their places there. */
export const findingsAtColumn = (
  result: CheckResult,
  template: Template,
  column: string,
): Finding[] => {
  const modules = modulesOfParts(template)
  const isThere = (key: string) => key === column || groupOf(key) === column
  const there = new Set(
    result.outcomes
      .filter((outcome) => isThere(columnOf(outcome, modules)))
      .map((outcome) => outcome.fingerprint),
  )
  return result.findings.flatMap((finding) => {
    const places = finding.places.filter((place) => there.has(place.fingerprint))
    return places.length > 0
      ? [{ ...finding, message: places[0]?.message ?? finding.message, places }]
      : []
  })
}

/** What a column or a group is called. */
export const columnTitle = (template: Template | null, column: string): string => {
  const [group = '', what] = column.split('/')
  const title = groupTitle(
    group,
    (module) => template?.parts.find(({ key }) => key === module)?.name ?? module,
  )
  return what === undefined
    ? title
    : `${title} › ${describedBy(template ? [template] : []).titles.get(what) ?? what}`
}
