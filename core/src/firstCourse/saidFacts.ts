import { instructionalWeeks } from '../calendar/index.ts'
import type { Facts } from '../course/index.ts'
import { partsWithin, type Template } from '../template/index.ts'

const usualUnits = 4

/** Facts of a course with all that an instructor says of it, where they did not yet: what each week is about, and which units there are. */
export const saidFacts = (facts: Facts, template: Template): Facts => {
  const weeks = instructionalWeeks({ ...facts, count: facts.weeks }).filter(
    ({ number }) => number > 0,
  )
  const topics = Object.fromEntries(
    weeks.map(({ number }) => [
      number,
      facts.topics[number] || `Subject ${String.fromCodePoint(64 + number)}`,
    ]),
  )
  const hasUnits = partsWithin(template.parts).some(
    (part) => part.kind === 'module' && part.repeat?.per === 'unit',
  )
  if (!hasUnits || facts.units) return { ...facts, topics }
  const each = Math.ceil(weeks.length / usualUnits)
  const units = Array.from({ length: Math.ceil(weeks.length / each) }, (_, i) => ({
    number: i + 1,
    firstWeek: i * each + 1,
    lastWeek: Math.min(weeks.length, (i + 1) * each),
    title: `Subject ${String.fromCodePoint(65 + i)}`,
  }))
  return { ...facts, topics, units }
}
