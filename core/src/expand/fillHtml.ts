import { isFieldName, promptOf, writeField, type FieldValues } from '../naming/index.ts'
import { escapeHtml } from '../template/index.ts'

/** HTML with `{field}` and `{field, style}` of known fields replaced by their values, escaped. Other braces stay. */
export const fillHtml = (html: string, values: FieldValues): string =>
  html.replace(/\{(\w+)(?:,\s*([^{}]*))?\}/g, (whole, name: string, style: string | undefined) => {
    if (!isFieldName(name)) return whole
    const value = values[name]
    return escapeHtml(
      value === undefined || value === ''
        ? promptOf(name)
        : writeField(name, style?.trim() ?? null, value),
    )
  })
