import { z } from 'zod'
import { bandings } from '../bands.ts'
import { bytes } from '../route.ts'
import { AsOf, type Routes } from './asked.ts'

/** In what form a report is told: a page to print, two for spreadsheets, one of our own, and two open standards. */
export const reportFormatNames = ['html', 'xlsx', 'csv', 'json', 'sarif', 'earl'] as const
export const ReportFormatName = z.enum(reportFormatNames)
export type ReportFormatName = z.output<typeof ReportFormatName>

export const reportRoutes = {
  courseReport: {
    method: 'get',
    path: '/api/courses/:course/report',
    summary: 'The check of a course as a file',
    may: 'see courses',
    query: AsOf.extend({ format: ReportFormatName.default('json') }),
    answer: bytes,
  },
  collegeReport: {
    method: 'get',
    path: '/api/report',
    summary: 'The checks of all courses one may see, or of some bands of the weave, as a file',
    may: 'see college',
    query: AsOf.extend({
      format: ReportFormatName.default('html'),
      by: z.enum(bandings).default('department'),
      of: z
        .string()
        .max(4000)
        .optional()
        .describe('Names of bands, with ~ between them; all without'),
      shown: z
        .enum(['all', 'open'])
        .default('all')
        .describe('Only courses in which something is open'),
    }),
    answer: bytes,
  },
} as const satisfies Routes
