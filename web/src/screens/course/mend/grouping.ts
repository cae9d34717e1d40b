import {
  localDateOf,
  modulesOfParts,
  ruleById,
  type CheckResult,
  type Course,
  type Finding,
  type FindingPlace,
  type Template,
} from '@wickerframe/core'

export const groupings = ['page', 'person', 'rule'] as const
export type Grouping = (typeof groupings)[number]

export interface FindingGroup {
  title: string
  findings: Finding[]
}

type Known = readonly { name: string; email: string }[]

/** Whose move a finding is, in words; people of the course by their names. */
export const whoseMove = (finding: Finding, people: Known): string =>
  finding.mender === 'instructor'
    ? finding.owner === null
      ? 'The instructor'
      : nameOf(finding.owner, people)
    : finding.mender === 'designer'
      ? 'The designers'
      : 'The administrator'

/** What somebody is called, where the course knows them; their e-mail otherwise. */
export const nameOf = (email: string, people: Known): string =>
  people.find((person) => person.email === email)?.name ?? email

/** Top modules of a template that repeat, and how: parts in them stand under one heading for all repetitions. */
const repeatedModules = (template: Template): ReadonlyMap<string, string> => {
  const modules = new Map(template.parts.map((part) => [part.key, part]))
  return new Map(
    [...modulesOfParts(template)].flatMap(([part, module]) => {
      const top = modules.get(module)
      return top?.kind === 'module' && top.repeat ? [[part, top.repeat.per] as const] : []
    }),
  )
}
const repeatTitles: Readonly<Record<string, string>> = {
  week: 'Weeks',
  unit: 'Units',
  meeting: 'Meetings',
  times: 'Repeated modules',
}

export const homeTitle = 'The home page'
const courseTitle = 'The course'

/** Where in the course somebody looks for a place: the home page, a module, all its weeks, or the course itself. */
const headings = (template: Template) => {
  const repeated = repeatedModules(template)
  return (rule: string, { part, path, week, foundId }: FindingPlace['place']): string => {
    if (part === 'home-page' || ruleById(rule)?.group === 'home page') return homeTitle
    const per = week !== null ? 'week' : part === null ? undefined : repeated.get(part)
    if (per !== undefined) return repeatTitles[per] ?? per
    return part === null && foundId === null ? courseTitle : (path[0] ?? courseTitle)
  }
}

/** Findings by the page or module they stand in, in the order of the course, by who must act, or by their rule. A finding of many modules stands in each. */
export const grouped = (
  findings: readonly Finding[],
  by: Grouping,
  { template, course, people }: { template: Template; course: Course; people: Known },
): FindingGroup[] => {
  if (by === 'page') return inOrderOf(course, byHeading(findings, headings(template)))
  const groups = new Map<string, Finding[]>()
  for (const finding of findings)
    add(groups, by === 'person' ? whoseMove(finding, people) : finding.title, finding)
  return groupsOf(groups)
}

const add = <Value>(lists: Map<string, Value[]>, key: string, value: Value): void => {
  const list = lists.get(key)
  if (list) list.push(value)
  else lists.set(key, [value])
}
const groupsOf = (groups: ReadonlyMap<string, Finding[]>): FindingGroup[] =>
  [...groups].map(([title, findings]) => ({ title, findings }))

const byHeading = (
  findings: readonly Finding[],
  headingOf: ReturnType<typeof headings>,
): FindingGroup[] => {
  const groups = new Map<string, Finding[]>()
  for (const finding of findings) {
    const places = new Map<string, FindingPlace[]>()
    for (const place of finding.places) add(places, headingOf(finding.rule, place.place), place)
    for (const [title, there] of places)
      add(
        groups,
        title,
        places.size === 1
          ? finding
          : { ...finding, message: there[0]?.message ?? finding.message, places: there },
      )
  }
  return groupsOf(groups)
}

/** The home page first, then as the modules stand, what is no longer there after them, and last the course itself. */
const inOrderOf = ({ modules }: Course, groups: readonly FindingGroup[]): FindingGroup[] => {
  const order = new Map(modules.map(({ name }, i) => [name, i]))
  const rank = ({ title, findings }: FindingGroup): number =>
    title === homeTitle
      ? -1
      : title === courseTitle
        ? modules.length + 1
        : Math.min(
            modules.length,
            ...findings.flatMap(({ places }) =>
              places.map(({ place }) => order.get(place.path[0] ?? '') ?? modules.length),
            ),
          )
  const ranks = new Map(groups.map((group) => [group, rank(group)]))
  return groups.toSorted((a, b) => (ranks.get(a) ?? 0) - (ranks.get(b) ?? 0))
}

/** Findings as they are looked at: open ones, waived ones, and what is for information only. */
export const sorted = (
  result: CheckResult,
): { open: Finding[]; waived: Finding[]; information: Finding[] } => {
  const isWaived = (finding: Finding) => finding.places.every((place) => place.waived)
  return {
    open: result.findings.filter((finding) => finding.strength !== 'may' && !isWaived(finding)),
    waived: result.findings.filter((finding) => finding.strength !== 'may' && isWaived(finding)),
    information: result.findings.filter((finding) => finding.strength === 'may'),
  }
}

/** The Monday after a date, `YYYY-MM-DD`. */
export const nextMonday = (date: string): string => {
  const at = new Date(`${date}T12:00:00Z`)
  at.setUTCDate(at.getUTCDate() + ((8 - at.getUTCDay()) % 7 || 7))
  return localDateOf(at.toISOString(), 'UTC')
}

/** Whether some findings are somebody's move and some are others'. */
export const isShared = (findings: readonly Finding[], email: string): boolean =>
  findings.some(({ owner }) => owner === email) && findings.some(({ owner }) => owner !== email)

/** One's own findings before those of others, each in their order. */
export const mineFirst = (findings: readonly Finding[], email: string): Finding[] => [
  ...findings.filter(({ owner }) => owner === email),
  ...findings.filter(({ owner }) => owner !== email),
]
