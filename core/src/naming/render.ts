import { formatDate, formatDateRange } from '../calendar/index.ts'
import {
  definitionOf,
  isDaySpan,
  isNumberSpan,
  type FieldName,
  type FieldValue,
  type FieldValues,
} from './fields.ts'
import type { FormatNode, NamingFormat } from './format.ts'

export interface RenderedName {
  text: string
  /** Fields that had no value and stand as their prompt, in order. */
  unfilled: FieldName[]
}

/** One value as a format writes it. */
export const writeField = (field: FieldName, style: string | null, value: FieldValue): string => {
  const definition = definitionOf(field)
  const pattern = style ?? definition.style ?? ''
  if (isDaySpan(value)) return formatDateRange(value.first, value.last, pattern)
  if (isNumberSpan(value))
    return value.from === value.to ? String(value.from) : `${value.from}–${value.to}`
  if (definition.type === 'date') return formatDate(String(value), pattern)
  if (definition.type === 'integer') return String(value).padStart(style?.length ?? 1, '0')
  return String(value)
}

/** What stands for a field that has no value yet: `[topic]`. */
export const promptOf = (field: FieldName): string =>
  `[${definitionOf(field).prompt ?? definitionOf(field).title}]`

/**
 * The name a format gives for these values. A field without a value is written as its prompt; an optional stretch
 * only when all its fields have values. Linear in the size of the result.
 */
export const renderName = (format: NamingFormat, values: FieldValues): RenderedName => {
  const unfilled: FieldName[] = []
  const write = (nodes: FormatNode[]): string =>
    nodes
      .map((node) => {
        if (node.node === 'text') return node.text
        if (node.node === 'optional')
          return node.nodes.every(
            (inner) => inner.node !== 'field' || hasValue(values[inner.field]),
          )
            ? write(node.nodes)
            : ''
        const value = values[node.field]
        if (hasValue(value)) return writeField(node.field, node.style, value)
        unfilled.push(node.field)
        return promptOf(node.field)
      })
      .join('')
  return { text: write(format.nodes), unfilled }
}

const hasValue = (value: FieldValue | undefined): value is FieldValue =>
  value !== undefined && value !== ''
