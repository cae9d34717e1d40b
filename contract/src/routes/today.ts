import { z } from 'zod'
import { PlainDate, Term } from '@wickerframe/core'
import { type Routes } from './asked.ts'
import { MendFirstAction, CourseLine } from './conformance.ts'
import { RunSummary } from './runs.ts'

/** The first of some courses, and how many there are. */
const firstOf = <Line extends z.ZodType>(line: Line) =>
  z.strictObject({ count: z.number(), lines: z.array(line) })

export const NotReadyLine = CourseLine.extend({
  openMusts: z.number(),
  first: z.string().describe('The sentence of the must that students meet first'),
  by: PlainDate.nullable().describe('The first day on which students meet it; null: they do now'),
  mends: z.number().describe('Open musts whose mend is known'),
  toRaise: z.number().describe('Open musts that somebody of the course must mend, not raised yet'),
})
export type NotReadyLine = z.output<typeof NotReadyLine>

/** What somebody of a course said or asked, and waits for a designer. */
export const WaitingLine = CourseLine.extend({
  what: z.enum(['answer', 'promise-passed', 'waiver-asked', 'waiver-ends']),
  who: z.string(),
  about: z.string().describe('The sentence of the finding, or the reason of the waiver'),
  says: z.string(),
  on: PlainDate.nullable().describe('The day that was promised, or the last of a waiver'),
})
export type WaitingLine = z.output<typeof WaitingLine>

export const TodayView = z.strictObject({
  today: PlainDate,
  term: Term,
  week: z.number().nullable(),
  weeks: z.number(),
  notReady: firstOf(NotReadyLine),
  waiting: firstOf(WaitingLine),
  wideWaiversEnding: z.number().describe('Waivers for many courses that end within a fortnight'),
  comingDue: firstOf(CourseLine.extend({ musts: z.number(), on: PlainDate })),
  notBegun: firstOf(CourseLine),
  noTemplate: firstOf(CourseLine.extend({ state: z.string() })).extend({
    all: z.array(z.number()).describe('Ids of all of them'),
  }),
  duplicates: firstOf(z.strictObject({ classSection: z.string(), courses: z.array(CourseLine) })),
  failedRollouts: z.array(RunSummary),
  mendFirst: z.array(MendFirstAction),
  checkedAsOf: z.string().nullable(),
})
export type TodayView = z.output<typeof TodayView>

export const todayRoutes = {
  today: {
    method: 'get',
    path: '/api/today',
    summary: 'What needs the designer now',
    may: 'see college',
    answer: TodayView,
  },
} as const satisfies Routes
