import type { Change, CourseQuestion, QuestionsWritten } from '../../course/index.ts'
import type { Undoing } from './undoing.ts'

/** HTML whose links to what comes back under a new id lead there. */
export const ledBack = ({ record, remade }: Undoing): ((html: string) => string) => {
  const addresses = record.touched.flatMap(({ id, before }) =>
    before?.url && remade.has(id)
      ? [{ from: `href="${before.url}"`, to: `href="ref:${remade.get(id)}"` }]
      : [],
  )
  return (html) => addresses.reduce((text, { from, to }) => text.replaceAll(from, to), html)
}

const ledQuestions = (
  written: QuestionsWritten,
  led: (html: string) => string,
): QuestionsWritten => ({
  ...written,
  order: written.order.map((one) =>
    'body' in one ? { ...one, body: { ...one.body, text: led(one.body.text) } } : one,
  ),
})

/** Questions that stand, written anew where their links lead elsewhere; null where none does. */
const relinked = (
  questions: readonly CourseQuestion[],
  led: (html: string) => string,
): QuestionsWritten | null => {
  const order = questions.map(({ id, body }) => {
    const text = led(body.text)
    return text === body.text || body.kind === 'other' ? { id } : { id, body: { ...body, text } }
  })
  return order.some((one) => 'body' in one) ? { order, remove: [] } : null
}

/**
 * The changes, and pages and questions that lead to what comes back under a new id: their links lead there. Pages that are written
 * so are noted.
 */
export const withLinksBack = (undoing: Undoing): Change[] => {
  const { changes, items, pages, remade, removed } = undoing
  if (remade.size === 0) return [...changes]
  const led = ledBack(undoing)
  const ledIn = (change: Change): Change => {
    if (change.change !== 'set-item' && change.change !== 'create-item') return change
    const { html, questions } = change.fields
    return {
      ...change,
      fields: {
        ...change.fields,
        ...(html === undefined ? {} : { html: led(html) }),
        ...(questions ? { questions: ledQuestions(questions, led) } : {}),
      },
    } as Change
  }
  const all = changes.map(ledIn)
  const setBy = new Map(
    all.flatMap((change, i) => (change.change === 'set-item' ? [[change.id, i] as const] : [])),
  )
  for (const item of items.values()) {
    if (removed.has(item.id)) continue
    const at = setBy.get(item.id)
    const set = at === undefined ? undefined : all[at]
    const fields = set?.change === 'set-item' ? set.fields : {}
    const html = item.html === null || fields.html !== undefined ? null : led(item.html)
    const isLed = html !== null && html !== item.html
    // What students were asked stays as it is.
    const questions =
      item.questions && !fields.questions && !item.studentWork
        ? relinked(item.questions, led)
        : null
    if (!isLed && !questions) continue
    if (isLed) pages.set(item.id, item.html ?? '')
    const change: Change = {
      change: 'set-item',
      id: item.id,
      fields: { ...fields, ...(isLed ? { html } : {}), ...(questions ? { questions } : {}) },
    }
    if (at === undefined) all.push(change)
    else all[at] = change
  }
  return all
}
