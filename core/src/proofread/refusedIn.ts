import { jsonPointer, type Problem } from '../document/index.ts'
import { letIn, refusedInDrawing } from '../allow/index.ts'
import { htmlFields } from '../template/index.ts'

/** Whether something is the body of a question: what it asks is HTML. */
const isQuestion = (value: object): boolean =>
  'points' in value && 'kind' in value && 'text' in value

/**
 * What of a document (a template, a library entry) is not let into a course, place by place: what runs, what asks for something
 * by itself, addresses that are none. Each problem names the block it stands in.
 */
export const refusedIn = (document: unknown): Problem[] => {
  const problems: Problem[] = []
  const look = (value: unknown, path: (string | number)[], within: string): void => {
    if (Array.isArray(value)) return value.forEach((entry, i) => look(entry, [...path, i], within))
    if (value === null || typeof value !== 'object') return
    const key = 'key' in value && typeof value.key === 'string' ? `“${value.key}”` : within
    for (const [field, inner] of Object.entries(value)) {
      const refused =
        typeof inner !== 'string'
          ? []
          : htmlFields.has(field) || (field === 'text' && isQuestion(value))
            ? letIn(inner).refused
            : field === 'svg'
              ? refusedInDrawing(inner)
              : []
      if (refused.length > 0)
        problems.push({
          code: 'not-let-in',
          path: jsonPointer([...path, field]),
          found: `${refused.join(', ')}${key === '' ? '' : ` in ${key}`}`,
          expected:
            'text, headings, lists, tables, pictures and links: nothing that runs or loads by itself',
        })
      look(inner, [...path, field], key)
    }
  }
  look(document, [], '')
  return problems
}
