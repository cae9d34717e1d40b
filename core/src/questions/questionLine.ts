/** What one line of a typed list of questions says. */
export type QuestionLine =
  | { is: 'question' | 'words'; text: string; points: number | null }
  | { is: 'choice'; text: string; right: boolean; letter: string | null; isBox: boolean }
  | { is: 'answer'; answers: string[]; isPattern: boolean }
  | { is: 'feedback'; text: string; ofChoice: boolean }
  | { is: 'model'; text: string }

const mark = '[*✓✔]'
const lettered = new RegExp(`^\\s*(${mark}?)\\s*\\(?([a-zA-Z])[.)]\\s*(${mark}?)\\s+(.+)$`, 'u')
const boxed = /^\s*(?:[-•]\s*)?(?:\[([ xX*✓✔])\]|([☐☑☒]))\s*(.+)$/u
const bulleted = new RegExp(`^\\s*(${mark}?)\\s*[-–•○◯●]\\s+(${mark}?)\\s*(.+)$`, 'u')
const starred = /^\s*[*✓✔]\s*(\S.*)$/u
const numbered = /^\s*(?:question\s+|q\s?)?(\d{1,3})\s*([.):])\s*(.*)$/i
const answering = /^\s*(?:correct\s+|right\s+)?(answers?|ans|key|pattern|patterns)\s*[:=]\s*(.+)$/i
const afterwards = /^\s*(?:(~)|(?:feedback|explanation|rationale)\s*:)\s*(.+)$/i
const modelled = /^\s*(?:model(?:\s+answer)?|good answer)\s*:\s*(.+)$/i

/** `(2 points)`, `[1.5 pts]`, `(2 Punkte)`: a number and a word that begins with p; where a line ends or begins. */
const worth = /\s*[([]\s*(\d+(?:[.,]\d+)?)\s*p\p{L}*\.?\s*[)\]]\s*/iu
const endMark = new RegExp(`\\s*(?:${mark}|[([]\\s*correct\\s*[)\\]])\\s*$`, 'iu')

const choice = (text: string, isMarked: boolean, letter: string | null, isBox = false) => {
  const right = isMarked || endMark.test(text)
  return {
    is: 'choice' as const,
    text: text.replace(endMark, '').trim(),
    right,
    letter: letter?.toLowerCase() ?? null,
    isBox,
  }
}

const words = (is: 'question' | 'words', text: string): QuestionLine => {
  const found = worth.exec(text)
  return {
    is,
    text: (found ? text.replace(worth, ' ') : text).replace(/\s+/g, ' ').trim(),
    points: found?.[1] === undefined ? null : Number(found[1].replace(',', '.')),
  }
}

const answersIn = (text: string): string[] =>
  text
    .split(/\s+\/\s+|\s*;\s*/)
    .map((answer) => answer.trim())
    .filter((answer) => answer !== '')

/**
 * What a line says.
 * @param numbering what stands after the number of a question, or null where they are not numbered
 * @param choices answers of the question so far: letters count on from them
 */
export const kindOfLine = (
  line: string,
  numbering: string | null,
  choices: readonly { letter: string | null }[],
): QuestionLine => {
  const number = numbered.exec(line)
  if (number && numbering !== null) {
    const [, , after, text = ''] = number
    if (after === numbering) return words('question', text)
    // Numbers of another form below a question count its answers.
    if (text !== '') return choice(text, false, null)
  }
  const answer = answering.exec(line)
  if (answer)
    return {
      is: 'answer',
      answers: answersIn(answer[2] ?? ''),
      isPattern: /^pattern/i.test(answer[1] ?? ''),
    }
  const told = afterwards.exec(line)
  if (told) return { is: 'feedback', text: (told[2] ?? '').trim(), ofChoice: told[1] === '~' }
  const model = modelled.exec(line)
  if (model) return { is: 'model', text: (model[1] ?? '').trim() }
  const letter = lettered.exec(line)
  const next = String.fromCodePoint(97 + choices.length)
  if (letter && letter[2]?.toLowerCase() === next)
    return choice(letter[4] ?? '', letter[1] !== '' || letter[3] !== '', letter[2])
  const box = boxed.exec(line)
  if (box) return choice(box[3] ?? '', /[xX*✓✔☑☒]/u.test(box[1] ?? box[2] ?? ''), null, true)
  const bullet = bulleted.exec(line)
  if (bullet) return choice(bullet[3] ?? '', bullet[1] !== '' || bullet[2] !== '', null)
  const star = starred.exec(line)
  if (star) return choice(star[1] ?? '', true, null)
  return words('words', line.trim())
}
