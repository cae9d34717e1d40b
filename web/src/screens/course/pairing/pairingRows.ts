import {
  type CheckResult,
  type Course,
  type CourseItem,
  type CourseModule,
  doubtfulBelow,
  expectationFor,
  type ExpectedPart,
  type Facts,
  type Finding,
  isCourseModule,
  kindWords,
  localDateOf,
  type Template,
} from '@wickerframe/core'

/** How a strand between expected and found is drawn. */
export type StrandLook = 'met' | 'open-must' | 'open-should' | 'doubtful' | 'not-due-yet'

export interface LeftRow {
  id: string
  name: string
  kind: string
  strength: string
  isModule: boolean
  /** Row of the module it stands in, itself for a module. */
  group: string
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
  group: string
  note: string
  extra: boolean
}
export interface Strand {
  left: string
  right: string
  look: StrandLook
  /** Whether it crosses from one module to another. */
  moved: boolean
  by: CheckResult['pairs'][number]['by']
  confidence: number
  reasons: string[]
}
export interface PairingRows {
  left: LeftRow[]
  right: RightRow[]
  strands: Strand[]
}

/** What a row is called; a module needs no word, for it stands at the margin. */
const kindName = (kind: string): string => (kind === 'module' ? '' : kindWords(kind))

const lookOf = (
  findings: readonly Finding[],
  instance: string,
): 'open-must' | 'open-should' | null => {
  const about = findings.filter(
    (finding) =>
      finding.strength !== 'may' &&
      finding.places.some((place) => place.place.instance === instance && !place.waived),
  )
  return about.some((finding) => finding.strength === 'must')
    ? 'open-must'
    : about.length > 0
      ? 'open-should'
      : null
}

/** How a pair was told, in words. */
export const matchWords: Readonly<Record<Strand['by'], string>> = {
  hand: 'joined by hand',
  recorded: 'what deployment made',
  evidence: 'told by evidence',
}

/** Expected and found as two columns of rows with the strands between them, for one course. Null when the template does not fit. */
export const pairingRows = (
  template: Template,
  facts: Facts,
  course: Course,
  result: CheckResult,
): PairingRows | null => {
  const worked = expectationFor({ template, facts, course })
  if (!worked.ok) return null
  const pairOf = new Map(result.pairs.map((pair) => [pair.expected, pair]))
  const outcomes = new Map(
    result.outcomes
      .filter((outcome) => outcome.rule === 'item-missing' || outcome.rule === 'module-missing')
      .map((outcome) => [outcome.place.instance, outcome.outcome]),
  )
  const left: LeftRow[] = []
  const strands: Strand[] = []
  const addLeft = (part: ExpectedPart, group: string) => {
    const pair = pairOf.get(part.instance)
    const look: StrandLook | null = pair
      ? pair.confidence < doubtfulBelow
        ? 'doubtful'
        : (lookOf(result.findings, part.instance) ?? 'met')
      : null
    const missing = outcomes.get(part.instance) === 'failed'
    if (!pair && part.inBreak && part.kind !== 'module') return
    left.push({
      id: part.instance,
      name: part.name,
      kind: kindName(part.kind),
      isModule: part.kind === 'module',
      group,
      strength: part.audience === 'students' ? part.strength : part.audience,
      look,
      loose: pair ? null : missing ? 'open' : 'allowed',
    })
    if (pair && look)
      strands.push({
        left: part.instance,
        right: pair.found,
        look,
        moved: pair.moved,
        by: pair.by,
        confidence: pair.confidence,
        reasons: pair.reasons,
      })
    for (const inner of part.items) addLeft(inner, inner.kind === 'module' ? inner.instance : group)
  }
  addLeft(worked.value.expected.home, worked.value.expected.home.instance)
  for (const part of worked.value.expected.parts) addLeft(part, part.instance)

  const paired = new Set(result.pairs.map((pair) => pair.found))
  const shown = (found: CourseItem | CourseModule) => {
    if (found.staffOnly) return 'for staff'
    if (!found.published) return 'hidden'
    const opens = found.opensAt === null ? null : localDateOf(found.opensAt, facts.term.timeZone)
    return opens !== null && opens > result.asOf ? `opens ${opens}` : ''
  }
  const addItem =
    (group: string) =>
    (item: CourseItem): RightRow => ({
      id: item.id,
      name: item.name,
      kind: kindName(item.kind),
      isModule: false,
      group,
      note: shown(item),
      extra: !paired.has(item.id),
    })
  const addModule = (module: CourseModule): RightRow[] => [
    {
      id: module.id,
      name: module.name,
      kind: '',
      isModule: true,
      group: module.id,
      note: shown(module),
      extra: !paired.has(module.id),
    },
    ...module.children.flatMap((child) =>
      isCourseModule(child) ? addModule(child) : [addItem(module.id)(child)],
    ),
  ]
  const right: RightRow[] = [...course.stray.map(addItem('')), ...course.modules.flatMap(addModule)]
  return { left, right, strands }
}

export interface RowFilter {
  /** Only modules in which something is missing, open, doubtful or of the course's own. */
  departures: boolean
  musts: boolean
  /** Row of one module of the template; empty: all. */
  module: string
}

/** The rows that a filter leaves, whole modules at a time, so that what stands around a departure is seen with it. */
export const filteredRows = (
  rows: PairingRows,
  { departures, musts, module }: RowFilter,
): PairingRows => {
  if (!departures && !musts && module === '') return rows
  const strandOf = new Map(
    rows.strands.flatMap((strand) => [
      [strand.left, strand],
      [strand.right, strand],
    ]),
  )
  const departs = (look: StrandLook | undefined, missing: boolean, extra: boolean): boolean =>
    musts
      ? missing || look === 'open-must'
      : missing || extra || (look !== undefined && look !== 'met') || false
  const leftGroups = new Set<string>()
  const rightGroups = new Set<string>()
  const groupOfRight = new Map(rows.right.map((row) => [row.id, row.group]))
  const groupOfLeft = new Map(rows.left.map((row) => [row.id, row.group]))
  for (const row of rows.left) {
    const strand = strandOf.get(row.id)
    if (module !== '' && row.group !== module) continue
    if (
      (departures || musts) &&
      !departs(strand?.look, row.loose === 'open', false) &&
      !(departures && strand?.moved)
    )
      continue
    leftGroups.add(row.group)
    if (strand) rightGroups.add(groupOfRight.get(strand.right) ?? '')
  }
  if (departures && !musts)
    for (const row of rows.right) {
      if (!row.extra || row.group === '') continue
      const partner = strandOf.get(row.group)
      if (module !== '' && groupOfLeft.get(partner?.left ?? '') !== module) continue
      rightGroups.add(row.group)
      if (partner) leftGroups.add(groupOfLeft.get(partner.left) ?? '')
    }
  for (const group of leftGroups) {
    const partner = strandOf.get(group)
    if (partner) rightGroups.add(groupOfRight.get(partner.right) ?? '')
  }
  const left = rows.left.filter((row) => leftGroups.has(row.group))
  const right = rows.right.filter(
    (row) =>
      rightGroups.has(row.group) &&
      (row.group !== '' || left.some(({ id }) => strandOf.get(id)?.right === row.id)),
  )
  const ids = new Set([...left, ...right].map((row) => row.id))
  return {
    left,
    right,
    strands: rows.strands.filter((strand) => ids.has(strand.left) && ids.has(strand.right)),
  }
}
