import writeWorkbook from 'write-excel-file/node'
import type { Report } from './report.ts'
import { courseTable, findingTable, type Table } from './table.ts'

/** Most characters of a cell (Office Open XML, as spreadsheets read it; common practice, no source). */
const mostCharacters = 32_000
/** Characters that XML 1.0 has no way of writing. */
// oxlint-disable-next-line no-control-regex
const unwritable = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g

const sheetOf = ({ title, head, rows }: Table) => ({
  sheet: title,
  data: [
    head.map((value) => ({ value, type: String, fontWeight: 'bold' as const })),
    ...rows.map((row) =>
      row.map((value) =>
        typeof value === 'number'
          ? { value, type: Number }
          : { value: value.replace(unwritable, '').slice(0, mostCharacters), type: String },
      ),
    ),
  ],
  columns: head.map((name) => ({ width: Math.min(60, Math.max(10, name.length + 2)) })),
  stickyRowsCount: 1,
})

/** A report as a spreadsheet of two sheets (Office Open XML): the courses, and what was found in them. Cells are text or numbers, never formulas. */
export const workbookOf = async (report: Report): Promise<Uint8Array> =>
  new Uint8Array(
    await writeWorkbook([sheetOf(courseTable(report)), sheetOf(findingTable(report))]).toBuffer(),
  )
