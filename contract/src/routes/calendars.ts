import { z } from 'zod'
import { Facts, Unit, weekdays } from '@wickerframe/core'
import { iCalendar } from '../route.ts'
import type { Routes } from './asked.ts'

/** What somebody decided about a course's calendar; everything else of it is computed. */
export const CourseCalendar = z.strictObject({
  meetingDays: z
    .array(z.enum(weekdays))
    .max(7)
    .default([])
    .describe('Weekdays on which the class meets; Monday to Friday without any'),
  units: z
    .array(Unit)
    .max(60)
    .default([])
    .describe('Which weeks or days each unit covers; the template decides without any'),
  nextTerm: z
    .string()
    .max(60)
    .nullable()
    .default(null)
    .describe('Code of the term after it, for a course that spans two'),
})
export type CourseCalendar = z.output<typeof CourseCalendar>

export const calendarRoutes = {
  courseCalendar: {
    method: 'get',
    path: '/api/courses/:course/calendar',
    summary: 'Weeks and due dates of a course as an iCalendar file',
    may: 'see courses',
    answer: iCalendar,
  },
  decideCalendar: {
    method: 'post',
    path: '/api/courses/:course/calendar',
    summary: 'Decide on meeting days, units and a second term of a course',
    may: 'decide for course',
    body: CourseCalendar,
    answer: z.strictObject({ facts: Facts }),
  },
} as const satisfies Routes
