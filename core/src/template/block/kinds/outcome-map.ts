import { z } from 'zod'
import { anchor, heading } from '../html.ts'
import { defineBlock } from '../kind.ts'
import { fresh, label, shared } from '../shared.ts'
import { asWritten, type OutcomeLine, type Writing } from '../writing.ts'

const usual = 'What you will be able to do, and where you learn it'

const rowHtml = ({ text, modules }: OutcomeLine, writing: Writing): string => {
  const where = modules.map(({ first, last }) =>
    last === null
      ? anchor(first.href, first.name)
      : `${anchor(first.href, first.name)} to ${anchor(last.href, last.name)}`,
  )
  return `<tr><th scope="row">${writing.line(text)}</th><td>${where.join('<br>')}</td></tr>`
}

export const outcomeMap = defineBlock(
  'outcome-map',
  z.strictObject({ ...shared, kind: z.literal('outcome-map'), label: label.default(usual) }),
  {
    title: 'Outcomes and modules',
    group: 'made',
    isFixed: false,
    htmlFields: [],
    wordFields: [],
    empty: (key) => ({ ...fresh('outcome-map', key), label: usual }),
    html: (block, writing) => {
      const rows = writing.outcomes().map((line) => rowHtml(line, writing))
      return asWritten(
        `${heading(writing.label(block.label))}<table><thead><tr><th scope="col">Outcome</th><th scope="col">Modules</th></tr></thead><tbody>${rows.join('')}</tbody></table>`,
      )
    },
    words: () => null,
  },
)
