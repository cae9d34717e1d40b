import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  addDays,
  dateOfDayNumber,
  dayNumber,
  instructionalWeeks,
  weekdays,
  type Term,
} from '../calendar/index.ts'
import { applyChanges, everyModule, type Facts } from '../course/index.ts'
import { exampleCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { rules } from '../rules/index.ts'
import type { Template } from '../template/index.ts'
import { checkCourse, type CheckResult } from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

const ofNamesAndDates = new Set(
  rules.filter((rule) => rule.group === 'names' || rule.group === 'dates').map((rule) => rule.id),
)

const findings = (
  example: ReturnType<typeof exampleCourse>,
  asOf: string,
): CheckResult['findings'] => {
  const result = checkCourse({ ...example, asOf })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value.findings.filter((finding) => ofNamesAndDates.has(finding.rule))
}

/** Terms of any length, place on the earth and first weekday, with a break and a holiday somewhere. */
const terms = fc
  .record({
    firstDay: fc.integer({ min: dayNumber('2020-01-01'), max: dayNumber('2035-12-31') }),
    days: fc.integer({ min: 40, max: 118 }),
    breakAt: fc.double({ min: 0.2, max: 0.8, noNaN: true }),
    breakDays: fc.integer({ min: 1, max: 9 }),
    holidayAt: fc.double({ min: 0, max: 1, noNaN: true }),
    timeZone: fc.constantFrom(
      'America/Halifax',
      'Pacific/Auckland',
      'Europe/Paris',
      'Asia/Kolkata',
      'America/St_Johns',
    ),
    weekStartsOn: fc.constantFrom(...weekdays),
    shortFirstWeek: fc.constantFrom('counts' as const, 'joins-next' as const, 'is-week-0' as const),
    shortLastWeek: fc.constantFrom('counts' as const, 'joins-previous' as const),
    breakWeeksCount: fc.boolean(),
  })
  .map(({ firstDay, days, breakAt, breakDays, holidayAt, ...how }): Term => {
    const first = dateOfDayNumber(firstDay)
    const pause = addDays(first, Math.floor(days * breakAt))
    return {
      ...exampleFacts().term,
      ...how,
      firstDay: first,
      lastDay: addDays(first, days),
      sessions: [],
      otherDates: [],
      breaks: [{ name: 'Pause', first: pause, last: addDays(pause, breakDays) }],
      holidays: [{ name: 'Quay Day', date: addDays(first, Math.floor(days * holidayAt)) }],
    }
  })

const weekNames = [
  'Week {week} · {dates} · {topic}',
  'Week {week, 00}: {dates, M/d - M/d}{? - {topic}?}',
  '{dates, d–d MMM}: week {week}',
  'Semaine {week} ({start, EEE d MMMM yyyy})',
  'W{week} {topic}',
]

describe('a course as it was deployed', () => {
  it('has no finding about a name or date, whatever the calendar and the format, but that a week may end in a break', () => {
    fc.assert(
      fc.property(
        terms,
        fc.constantFrom(...weekNames),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (term, name, when) => {
          const template: Template = exampleTemplate()
          const week = template.parts.find((part) => part.key === 'week')
          if (!week) throw new Error('the example has no week')
          week.name = name
          // Three days before the end of a week of one day lies in the week before, and is rightly told.
          for (const item of week.kind === 'module' ? week.items : [])
            if (item.key === 'discussion' && item.kind === 'discussion')
              item.settings.due = { from: 'week-end', days: 0, time: '23:59' }
          const weeks = instructionalWeeks({ term })
          const facts: Facts = {
            ...exampleFacts(),
            term,
            weeks: weeks.filter((week) => week.number > 0).length,
            topics: Object.fromEntries(
              weeks.map((week) => [week.number, `Topic of harbour ${week.number}`]),
            ),
          }
          const asOf = addDays(
            term.firstDay,
            Math.floor((dayNumber(term.lastDay) - dayNumber(term.firstDay)) * when),
          )
          expect(
            findings(exampleCourse(template, facts), asOf)
              .filter((finding) => finding.rule !== 'due-in-break')
              .map((finding) => `${finding.rule}: ${finding.message}`),
          ).toEqual([])
        },
      ),
      propertyRuns(),
    )
  })
  it('has its names found and mended back, when they were typed as people do', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 8 }),
        fc.constantFrom('wk', 'Wk.', 'week', 'semaine', 'Semana', 'WEEK  '),
        fc.constantFrom(' - ', ': ', '. ', ' – '),
        (number, word, between) => {
          const example = exampleCourse()
          const module = everyModule(example.course.modules).find(
            (module) => module.recordedAs?.part === 'week' && module.recordedAs.number === number,
          )
          if (!module) return
          const right = module.name
          module.name = `${word} ${number}${between}${right.split(' · ').at(-1)}`
          const mends =
            findings(example, '2026-09-16')
              .find((finding) => finding.rule === 'module-name')
              ?.places.flatMap((place) => place.mend ?? []) ?? []
          const mended = applyChanges(example.course, mends, {
            newId: () => 'new',
            urlOf: (id) => id,
            rewriteHtml: (html) => html,
          })
          if (!mended.ok) throw new Error(mended.problems.message)
          expect(
            everyModule(mended.value.course.modules).find(({ id }) => id === module.id)?.name,
          ).toBe(right)
        },
      ),
      propertyRuns(),
    )
  })
})
