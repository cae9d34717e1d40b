import { renderPage, type ExpectedCourse, type ExpectedPart } from '@wickerframe/core'

const part = (one: ExpectedPart, onDate: string): object => ({
  instance: one.instance,
  part: one.key,
  repetition: one.repetition,
  kind: one.kind,
  name: one.name,
  strength: one.strength,
  audience: one.audience,
  firstDay: one.weeks[0]?.first ?? null,
  lastDay: one.weeks.at(-1)?.last ?? null,
  inBreak: one.inBreak,
  opensAt: one.opensAt,
  dueAt: one.dueAt,
  points: one.definition.settings.points ?? null,
  html: one.blocks.length > 0 ? renderPage(one, onDate) : null,
  items: one.items.map((inner) => part(inner, onDate)),
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
  parts: expected.parts.map((one) => part(one, onDate)),
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
  for (const one of [expected.home, ...expected.parts]) visit(one, 1)
  return `${lines.join('\n')}\n`
}
