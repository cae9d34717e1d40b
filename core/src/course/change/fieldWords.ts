import type { WrittenFile } from '../../files/index.ts'
import { questionName } from '../../template/index.ts'
import type { QuestionsWritten } from '../courseQuestion.ts'
import { plain, valueWords, type ChangeInWords, type ChangeWording } from './wording.ts'

const settingWords: Readonly<Record<string, string>> = {
  notification: 'students told of new posts',
  postFirst: 'students write before they read',
  graceMinutes: 'minutes of grace',
  attempts: 'attempts',
  minutes: 'minutes of time',
  handIn: 'what is handed in',
  practice: 'practice, outside the grade',
  shuffled: 'questions in an order of each student’s own',
  answersShown: 'when right answers are shown',
}

type Wording = (
  name: string,
  value: unknown,
  wording: ChangeWording,
  id: string,
) => string | ChangeInWords[]

const textOrNull = (value: unknown): string | null => (value === null ? null : String(value))

const workWords: Wording = (name, value, { item }, id) => {
  const before = (item(id)?.work ?? {}) as Record<string, unknown>
  return Object.entries((value ?? {}) as Record<string, unknown>).flatMap(([setting, wanted]) =>
    before[setting] === wanted
      ? []
      : [plain(`${name}: ${settingWords[setting] ?? setting} becomes ${valueWords(wanted)}`)],
  )
}

/** Questions that come, change or go; their order alone is said where nothing else is. */
const questionWords: Wording = (name, value, { item }, id) => {
  const { order, remove } = value as QuestionsWritten
  const there = new Map((item(id)?.questions ?? []).map((question) => [question.id, question]))
  const asked = (gone: string): string => questionName(there.get(gone)?.body ?? { text: gone })
  const told = [
    ...order.flatMap((one) =>
      !('body' in one)
        ? []
        : 'id' in one
          ? [plain(`${name}: the question ${asked(one.id)} becomes ${questionName(one.body)}`)]
          : [plain(`${name}: the question ${questionName(one.body)} is asked`)],
    ),
    ...remove.map((gone) => plain(`${name}: the question ${asked(gone)} is taken out`)),
  ]
  return told.length > 0 ? told : [plain(`${name}: its questions are put in order`)]
}

/** Each field of a module or item in words. */
const wordings: Readonly<Record<string, Wording>> = {
  name: (name, value) => `${name} is renamed to “${String(value)}”`,
  published: (name, value) =>
    value ? `${name} is shown to students` : `${name} is hidden from students`,
  staffOnly: (name, value) =>
    value ? `${name} is for staff only` : `${name} is no longer for staff only`,
  opensAt: (name, value, { moment }) =>
    value === null ? `${name} opens without a date` : `${name} opens ${moment(String(value))}`,
  dueAt: (name, value, { moment }) => `${name} is due ${moment(textOrNull(value))}`,
  closesAt: (name, value, { moment }) => `${name} closes ${moment(textOrNull(value))}`,
  points: (name, value) => `${name} carries ${textOrNull(value) ?? 'no'} points`,
  category: (name, value) => `${name} counts in ${valueWords(value)}`,
  html: (name, value, { item }, id) => [
    {
      says: `The text of ${name} changes`,
      text: { before: item(id)?.html ?? '', after: String(value) },
    },
  ],
  rubric: (name) => `${name} gets its rubric`,
  file: (name, value) =>
    value === null
      ? `${name} hands out no file`
      : `${name} hands out “${(value as WrittenFile).name}”`,
  work: workWords,
  questions: questionWords,
  carried: () => [],
}

/** What setting fields of a module or item comes to, field by field. */
export const fieldWords = (
  id: string,
  fields: Readonly<Record<string, unknown>>,
  wording: ChangeWording,
): ChangeInWords[] =>
  Object.entries(fields).flatMap(([field, value]) => {
    const name = wording.nameOf(id)
    const says = wordings[field]?.(name, value, wording, id)
    if (says === undefined) return [plain(`${name}: ${field} becomes ${valueWords(value)}`)]
    return typeof says === 'string' ? [plain(says)] : says
  })
