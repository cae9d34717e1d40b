import { z } from 'zod'
import { anchor, escapeHtml, heading } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, label, shared } from '../shared.ts'
import { asWritten, dateLineHtml } from '../writing.ts'

export const schedule = defineBlock(
  'schedule',
  z.strictObject({ ...shared, kind: z.literal('schedule'), label: label.default('Schedule') }),
  {
    title: 'Schedule',
    group: 'made',
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({ ...fresh('schedule', key), label: 'Schedule' }),
    html: (block, writing) => {
      const lines = writing.schedule()
      const isTaught = lines.some(({ taughtBy }) => taughtBy !== null)
      const taught = (cell: string): string => (isTaught ? cell : '')
      const rows = lines.map(
        (row) =>
          `<tr><th scope="row">${anchor(row.module.href, row.module.name)}</th><td>${escapeHtml(row.dates)}</td><td>${escapeHtml(row.topic)}</td>${taught(`<td>${escapeHtml(row.taughtBy ?? '')}</td>`)}<td>${row.due.map((line) => dateLineHtml(line)).join('<br>')}</td></tr>`,
      )
      return asWritten(
        `${heading(block.label)}<table><thead><tr><th scope="col">Module</th><th scope="col">Dates</th><th scope="col">Topic</th>${taught('<th scope="col">Taught by</th>')}<th scope="col">Due</th></tr></thead><tbody>${rows.join('')}</tbody></table>`,
      )
    },
    words: () => null,
  },
)
