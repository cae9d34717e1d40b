import { everyModule, expectationFor, localDateOf, type CheckResult, type Course, type CourseItem, type ExpectedPart, type Facts, type Finding, type Template } from '@wickerframe/core'

/** How a strand between expected and found is drawn. */
export type StrandLook = 'met' | 'open-must' | 'open-should' | 'doubtful' | 'not-due-yet'

export interface LeftRow {
  id: string
  name: string
  kind: string
  strength: string
  isModule: boolean
  /** null when nothing was found for it. */
  look: StrandLook | null
  /** Whether its absence is a finding, is allowed, or lies in a break. */
  loose: 'open' | 'allowed' | null
}
export interface RightRow {
  id: string
  name: string
  kind: string
  isModule: boolean
  note: string
  extra: boolean
}
export interface Join {
  left: string
  right: string
  look: StrandLook
  says: string
}
export interface PairingRows {
  left: LeftRow[]
  right: RightRow[]
  joins: Join[]
}

const kindMarks: Record<string, string> = { page: 'page', file: 'file', 'web-link': 'link', discussion: 'talk', assignment: 'work', assessment: 'quiz', 'tool-link': 'tool', heading: 'head', module: '' }

const lookOf = (findings: readonly Finding[], instance: string): 'open-must' | 'open-should' | null => {
  const about = findings.filter((finding) => finding.places.some((place) => place.place.instance === instance))
  return about.some((finding) => finding.strength === 'must') ? 'open-must' : about.length > 0 ? 'open-should' : null
}

const doubtfulBelow = 0.75

/** Expected and found as two columns of rows with the strands between them, for one course. Null when the template does not fit. */
export const pairingRows = (template: Template, facts: Facts, course: Course, result: CheckResult): PairingRows | null => {
  const worked = expectationFor({ template, facts, course })
  if (!worked.ok) return null
  const pairOf = new Map(result.pairs.map((pair) => [pair.expected, pair]))
  const outcomes = new Map(result.outcomes.filter((one) => one.rule === 'item-missing' || one.rule === 'module-missing').map((one) => [one.place.instance, one.outcome]))
  const left: LeftRow[] = []
  const joins: Join[] = []
  const addLeft = (part: ExpectedPart) => {
    const pair = pairOf.get(part.instance)
    const look: StrandLook | null = pair ? (pair.confidence < doubtfulBelow ? 'doubtful' : (lookOf(result.findings, part.instance) ?? 'met')) : null
    const missing = outcomes.get(part.instance) === 'failed'
    if (!pair && part.inBreak && part.kind !== 'module') return
    left.push({
      id: part.instance, name: part.name, kind: kindMarks[part.kind] ?? part.kind, isModule: part.kind === 'module',
      strength: part.audience === 'students' ? part.strength : part.audience, look, loose: pair ? null : missing ? 'open' : 'allowed',
    })
    if (pair && look) joins.push({ left: part.instance, right: pair.found, look, says: `${part.name} is ${pair.by === 'recorded' ? 'what deployment made' : `taken to be this, ${Math.round(pair.confidence * 100)} % sure: ${pair.reasons.join(', ')}`}` })
    for (const inner of part.items) addLeft(inner)
  }
  addLeft(worked.value.expected.home)
  for (const part of worked.value.expected.parts) addLeft(part)

  const paired = new Set(result.pairs.map((pair) => pair.found))
  const shown = (one: { published: boolean; opensAt: string | null }) => {
    if (!one.published) return 'hidden'
    const opens = one.opensAt === null ? null : localDateOf(one.opensAt, facts.term.timeZone)
    return opens !== null && opens > result.asOf ? `opens ${opens}` : ''
  }
  const addItem = (item: CourseItem): RightRow => ({ id: item.id, name: item.name, kind: kindMarks[item.kind] ?? item.kind, isModule: false, note: shown(item), extra: !paired.has(item.id) })
  const right: RightRow[] = [
    ...course.stray.map(addItem),
    ...everyModule(course.modules).flatMap((module): RightRow[] => [{ id: module.id, name: module.name, kind: '', isModule: true, note: shown(module), extra: !paired.has(module.id) }, ...module.items.map(addItem)]),
  ]
  return { left, right, joins }
}
