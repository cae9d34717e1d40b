import type { CourseQuestion } from '../course/index.ts'

const marked =
  /^\s*(?:\*|✓|✔|→)|(?:\*|✓|✔)\s*$|[([]\s*(?:correct|correct answer|right answer)\s*[)\]]/iu
const told =
  /(?:^|[\s>])(?:correct answer|right answer|answer key|answers?)\s*[:=]\s*\(?(?:[a-h]|true|false)\)?\s*(?:$|[.;])/iu
const emphasised = /^\s*(?:<p>)?\s*<(b|strong|u|mark|em|i)\b[^>]*>[^<]*<\/\1>\s*(?:<\/p>)?\s*$/i

const plain = (html: string): string => html.replace(/<[^>]*>/g, ' ')

/**
 * What of a question tells students which answer is right before they have answered: a mark left in an answer, a line left in what is
 * asked, an answer that alone is emphasised. null: nothing does.
 */
export const givesAway = (body: CourseQuestion['body']): string | null => {
  const asked = told.exec(plain(body.text))
  if (asked) return asked[0].trim()
  if (!('choices' in body)) return null
  const mark = body.choices.find(({ text, right }) => right && marked.test(plain(text)))
  const markedToo = body.choices.some(({ text, right }) => !right && marked.test(plain(text)))
  if (mark && !markedToo) return plain(mark.text).trim()
  const alone = body.choices.filter(({ text }) => emphasised.test(text))
  const [only] = alone
  return only?.right && alone.length === 1 && body.choices.length > 1
    ? plain(only.text).trim()
    : null
}
