import { CheckResult } from '@wickerframe/core'
import { z } from 'zod'
import { earlOf } from './earl.ts'
import { pageOf } from './page.ts'
import type { Report } from './report.ts'
import { sarifOf } from './sarif.ts'
import { csvOf } from './table.ts'

const asJson = (value: object): string => `${JSON.stringify(value, null, 2)}\n`

/** The checks themselves, and what could not be checked: what a later report is compared with. */
export const ReportDocument = z.strictObject({
  schema: z.literal('wickerframe.report/1'),
  made: z.iso.datetime(),
  version: z.string(),
  courses: z.array(CheckResult),
  failed: z.array(
    z.strictObject({
      at: z.string().describe('Path or address of the course'),
      message: z.string(),
    }),
  ),
})
export type ReportDocument = z.output<typeof ReportDocument>

export const jsonOf = ({ made, version, courses, failed }: Report): ReportDocument => ({
  schema: 'wickerframe.report/1',
  made,
  version,
  courses: courses.map(({ result }) => result),
  failed: [...failed],
})

export interface ReportFormat {
  mediaType: string
  extension: string
  write: (report: Report) => string | Promise<string | Uint8Array>
}

/** Every format in which a report is told, by the word that asks for it. */
export const reportFormats = {
  html: { mediaType: 'text/html; charset=utf-8', extension: 'html', write: pageOf },
  csv: { mediaType: 'text/csv; charset=utf-8; header=present', extension: 'csv', write: csvOf },
  xlsx: {
    mediaType: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    extension: 'xlsx',
    // What writes it is loaded when it is asked for.
    write: async (report) => (await import('./workbook.ts')).workbookOf(report),
  },
  json: {
    mediaType: 'application/json',
    extension: 'json',
    write: (report) => asJson(jsonOf(report)),
  },
  sarif: {
    mediaType: 'application/sarif+json',
    extension: 'sarif',
    write: (report) => asJson(sarifOf(report)),
  },
  earl: {
    mediaType: 'application/ld+json',
    extension: 'jsonld',
    write: (report) => asJson(earlOf(report)),
  },
} as const satisfies Readonly<Record<string, ReportFormat>>
export type ReportFormatName = keyof typeof reportFormats
