import { z } from 'zod'
import { Done, type Routes } from './asked.ts'

/** Five fields: minute, hour, day of the month, month, weekday (POSIX crontab). */
export const SchedulePattern = z
  .string()
  .trim()
  .max(100)
  .regex(/^\S+(?: \S+){4}$/, 'expected five fields: minute, hour, day of the month, month, weekday')

export const ScheduleRequest = z.strictObject({
  pattern: SchedulePattern,
  term: z.string().min(1).max(60).nullable().default(null).describe('Code; null: every term'),
  department: z.string().min(1).max(40).nullable().default(null).describe('null: every one'),
})

export const Schedule = z.strictObject({
  id: z.number(),
  pattern: z.string(),
  timeZone: z.string().describe('By which the pattern is read'),
  term: z.strictObject({ code: z.string(), title: z.string() }).nullable(),
  department: z.string().nullable(),
  paused: z.boolean(),
  by: z.string(),
  courses: z.number().describe('Teaching courses it is about now'),
  nextAt: z.string().nullable().describe('null: never again'),
  lastAt: z.string().nullable(),
  lastRun: z.number().nullable(),
  lastSaid: z.string().describe('What came of it the last time, where that was no run'),
})
export type Schedule = z.output<typeof Schedule>

export const scheduleRoutes = {
  listSchedules: {
    method: 'get',
    path: '/api/schedules',
    summary: 'When courses are read and checked without anybody asking for it',
    may: 'see college',
    answer: z.array(Schedule),
  },
  addSchedule: {
    method: 'post',
    path: '/api/schedules',
    summary: 'Have courses read and checked by schedule',
    may: 'check courses',
    body: ScheduleRequest,
    answer: z.strictObject({ id: z.number() }),
  },
  pauseSchedule: {
    method: 'post',
    path: '/api/schedules/:schedule/pause',
    summary: 'Pause a schedule, or let it go on; what was missed meanwhile is not caught up',
    may: 'check courses',
    body: z.strictObject({ paused: z.boolean() }),
    answer: Done,
  },
  removeSchedule: {
    method: 'post',
    path: '/api/schedules/:schedule/remove',
    summary: 'Take a schedule away',
    may: 'check courses',
    answer: Done,
  },
} as const satisfies Routes
