import {
  reportFormats,
  type Report,
  type ReportedCourse,
  type ReportFormatName,
} from '@wickerframe/interchange/report'

/** What is known of a report before its courses. */
export type ReportHead = Omit<Report, 'courses' | 'failed' | 'since'>

/** A report that could not be written: too much is being written, or it took too long or too much memory. */
export class ReportGivenUp extends Error {}

/** Writes reports whose courses come some at a time. */
export interface ReportWriter {
  /** @throws ReportGivenUp in words for people */
  write: (
    format: ReportFormatName,
    head: ReportHead,
    courses: AsyncIterable<readonly ReportedCourse[]>,
  ) => Promise<Uint8Array>
}

/** A whole report as the bytes of a file. */
export const reportBytes = async (
  format: ReportFormatName,
  report: Report,
): Promise<Uint8Array> => {
  const written = await reportFormats[format].write(report)
  return typeof written === 'string' ? new TextEncoder().encode(written) : written
}

/** Writes reports where it is called: of a few courses, which takes no time, and in tests. */
export const reportsHere: ReportWriter = {
  write: async (format, head, courses) => {
    const all: ReportedCourse[] = []
    for await (const some of courses) all.push(...some)
    return reportBytes(format, { ...head, courses: all, failed: [], since: null })
  },
}
