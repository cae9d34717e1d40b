import { z } from 'zod'
import { anchor, escapeHtml, heading } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { askable } from '../left.ts'
import { fresh, label, line, shared } from '../shared.ts'
import { asWritten, dateLineHtml, type ScheduleLine } from '../writing.ts'

/** What a column of the schedule is called, and what stands in it. */
interface Column {
  heading: string
  cell: (row: ScheduleLine) => string
}

/** What rows ask where nothing else is said. */
export const whatWeDo = 'What we do'

export const schedule = defineBlock(
  'schedule',
  z.strictObject({
    ...shared,
    ...askable,
    kind: z.literal('schedule'),
    label: label.default('Schedule'),
    prompt: line
      .optional()
      .describe('What each row asks of the instructor, where it is asked for: “What we do”'),
  }),
  {
    title: 'Schedule',
    group: 'made',
    isFixed: false,
    answer: 'text',
    htmlFields: [],
    wordFields: ['prompt'],
    empty: (key) => ({ ...fresh('schedule', key), label: 'Schedule' }),
    html: (block, writing) => {
      const lines = writing.schedule()
      const asked = block.left?.as === 'asked' ? writing.line(block.prompt ?? whatWeDo) : null
      // No two rows ask alike: each names its module.
      const question = (row: ScheduleLine): string =>
        `<p>${asked}: ${escapeHtml(row.module.name)}</p>`
      const columns: Column[] = [
        { heading: 'Dates', cell: ({ dates }) => escapeHtml(dates) },
        { heading: 'Topic', cell: ({ topic }) => escapeHtml(topic) },
        ...(asked === null ? [] : [{ heading: asked, cell: question }]),
        ...(lines.some(({ taughtBy }) => taughtBy !== null)
          ? [{ heading: 'Taught by', cell: (row: ScheduleLine) => escapeHtml(row.taughtBy ?? '') }]
          : []),
        { heading: 'Due', cell: ({ due }) => due.map((line) => dateLineHtml(line)).join('<br>') },
      ]
      const head = columns.map(({ heading }) => `<th scope="col">${heading}</th>`).join('')
      const rows = lines.map(
        (row) =>
          `<tr><th scope="row">${anchor(row.module.href, row.module.name)}</th>${columns.map(({ cell }) => `<td>${cell(row)}</td>`).join('')}</tr>`,
      )
      return asWritten(
        `${heading(writing.label(block.label))}<table><thead><tr><th scope="col">Module</th>${head}</tr></thead><tbody>${rows.join('')}</tbody></table>`,
        asked === null ? [] : lines.map(question),
      )
    },
    words: ({ prompt }) => (prompt === undefined ? null : [{ text: prompt }]),
  },
)
