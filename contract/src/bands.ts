import type { ConformanceRow } from './routes/conformance.ts'

/** What courses stand together by, in the weave and in a report of what it shows. */
export const bandings = ['department', 'template', 'instructor', 'length'] as const
export type Banding = (typeof bandings)[number]

/** The band a course stands in. */
export const bandOf: Readonly<
  Record<
    Banding,
    (row: Pick<ConformanceRow, 'department' | 'template' | 'owner' | 'weeks'>) => string
  >
> = {
  department: ({ department }) => department,
  template: ({ template }) => template || 'no template',
  instructor: ({ owner }) => owner || 'nobody',
  length: ({ weeks }) => `${String(weeks)} weeks`,
}
