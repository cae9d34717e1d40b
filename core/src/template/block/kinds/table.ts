import { z } from 'zod'
import { Line } from '../../../document/index.ts'
import { defineBlock } from '../kind.ts'
import { proposable } from '../left.ts'
import { fresh, label, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

export const table = defineBlock(
  'table',
  z
    .strictObject({
      ...shared,
      ...proposable,
      kind: z.literal('table'),
      caption: label,
      header: z.array(Line(300, 0)).min(1).max(12),
      rows: z
        .array(z.array(z.string().max(2000)).max(12))
        .max(200)
        .default([]),
    })
    .refine((block) => block.rows.every((row) => row.length === block.header.length), {
      message: 'as many cells in every row as there are headers',
      path: ['rows'],
    }),
  {
    title: 'Table',
    group: 'written',
    isFixed: true,
    htmlFields: [],
    wordFields: ['caption', 'header', 'rows'],
    empty: (key) => ({
      ...fresh('table', key),
      caption: 'What the table shows',
      header: ['First', 'Second'],
      rows: [['', '']],
    }),
    html: (block, { line: written }) => {
      const row = (cells: readonly string[]) =>
        `<tr>${cells.map((cell) => `<td>${written(cell)}</td>`).join('')}</tr>`
      return asWritten(
        `<table>${block.caption === '' ? '' : `<caption>${written(block.caption)}</caption>`}<thead><tr>${block.header.map((cell) => `<th scope="col">${written(cell)}</th>`).join('')}</tr></thead><tbody>${block.rows.map(row).join('')}</tbody></table>`,
      )
    },
    words: ({ caption, header, rows }) =>
      [caption, ...[header, ...rows].map((cells) => cells.join(' · '))]
        .filter((text) => text !== '')
        .map((text) => ({ text })),
  },
)
