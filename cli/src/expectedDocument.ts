import { renderPage, type ExpectedCourse, type ExpectedPart } from '@wickerframe/core'

const part = (entry: ExpectedPart, onDate: string): object => ({
  instance: entry.instance,
  part: entry.key,
  repetition: entry.repetition,
  kind: entry.kind,
  name: entry.name,
  strength: entry.strength,
  audience: entry.audience,
  firstDay: entry.weeks[0]?.first ?? null,
  lastDay: entry.weeks.at(-1)?.last ?? null,
  inBreak: entry.inBreak,
  opensAt: entry.opensAt,
  dueAt: entry.dueAt,
  points: entry.definition.settings.points ?? null,
  html: entry.blocks.length > 0 ? renderPage(entry, onDate) : null,
  items: entry.items.map((inner) => part(inner, onDate)),
})

/** The expected course as `expand` prints it. `onDate` decides which revision of a house text stands in its pages. */
export const expectedDocument = (expected: ExpectedCourse, onDate: string): object => ({
  schema: 'wickerframe.expected/1',
  template: {
    key: expected.template.key,
    title: expected.template.title,
    version: expected.template.version ?? null,
  },
  course: { code: expected.facts.code, name: expected.name, label: expected.label },
  weeks: expected.weeks,
  home: part(expected.home, onDate),
  parts: expected.parts.map((entry) => part(entry, onDate)),
})

/** The same as an outline to read. */
export const expectedText = (expected: ExpectedCourse): string => {
  const lines = [expected.name]
  const visit = (part: ExpectedPart, depth: number) => {
    lines.push(
      `${'  '.repeat(depth)}${part.name} (${part.kind}, ${part.strength}${part.audience === 'students' ? '' : `, ${part.audience}`}${part.dueAt ? `, due ${part.dueAt}` : ''})`,
    )
    for (const inner of part.items) visit(inner, depth + 1)
  }
  for (const entry of [expected.home, ...expected.parts]) visit(entry, 1)
  return `${lines.join('\n')}\n`
}
