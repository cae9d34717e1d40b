import { isFieldName, promptOf, writeField, type FieldValues } from '../naming/index.ts'
import { escapeHtml, withReader } from '../template/index.ts'

/** Text with `{field}` and `{field, style}` of known fields replaced by their values. Other braces stay. */
const filled = (text: string, values: FieldValues, written: (value: string) => string): string =>
  text.replace(/\{(\w+)(?:,\s*([^{}]*))?\}/g, (whole, name: string, style: string | undefined) => {
    if (!isFieldName(name)) return whole
    const value = values[name]
    return written(
      value === undefined || value === ''
        ? promptOf(name)
        : writeField(name, style?.trim() ?? null, value),
    )
  })

/** HTML with naming fields filled, their values escaped. */
export const fillHtml = (html: string, values: FieldValues): string =>
  filled(html, values, escapeHtml)

/**
 * Plain text with naming fields filled.
 * @param reader how the platform wants the first name of whoever reads it; null: nobody's name is put in
 */
export const fillText = (text: string, values: FieldValues, reader: string | null): string =>
  withReader(
    filled(text, values, (value) => value),
    reader,
  )
