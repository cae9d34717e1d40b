import { plain, valueWords, type ChangeInWords, type ChangeWording } from './wording.ts'

const settingWords: Readonly<Record<string, string>> = {
  notification: 'students told of new posts',
  postFirst: 'students write before they read',
  graceMinutes: 'minutes of grace',
  attempts: 'attempts',
  minutes: 'minutes of time',
  handIn: 'what is handed in',
  practice: 'practice, outside the grade',
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
  work: workWords,
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
