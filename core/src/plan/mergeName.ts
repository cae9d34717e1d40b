import {
  definitionOf,
  formatOf,
  readName,
  renderName,
  type FieldName,
  type FieldValues,
} from '../naming/index.ts'

/**
 * Merges a name through its fields: what the instructor wrote in fields of their own words is kept, everything else is
 * rendered as the template wants it now.
 * @param was format and text of the name as it was deployed
 * @param values what the fields should say now
 * @returns null when the present name cannot be read, says something else where the words are not the instructor's own, or
 * would lose the instructor's words
 */
export const mergeName = (
  was: { format: string; name: string },
  present: string,
  wantedFormat: string,
  values: FieldValues,
): string | null => {
  const format = formatOf(was.format)
  const before = readName(format, was.name, {})
  const now = readName(format, present, {})
  if (!before || !now) return null
  const own: Partial<Record<FieldName, string>> = {}
  for (const reading of now.readings) {
    const earlier = before.readings.find(({ field }) => field === reading.field)
    if (reading.text === earlier?.text) continue
    if (definitionOf(reading.field).own !== true) return null
    if (reading.state !== 'absent' && reading.text !== '') own[reading.field] = reading.text
  }
  const merged = renderName(formatOf(wantedFormat), { ...values, ...own }).text
  return Object.values(own).every((words) => merged.includes(words)) ? merged : null
}
