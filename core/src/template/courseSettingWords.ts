/** What people call a course's settings, by their fields. */
export const courseSettingWords: Readonly<Record<string, string>> = {
  language: 'language',
  gradesShown: 'running grade shown',
  joinByKey: 'joining by key',
  completionTracked: 'completion tracked',
  notices: 'announcements by e-mail',
  seenBy: 'who may see it',
  arranged: 'contents arranged',
  picture: 'picture',
}

const words: ReadonlyMap<unknown, string> = new Map<unknown, string>([
  [true, 'on'],
  [false, 'off'],
  [undefined, 'not set'],
  [null, 'not set'],
  ['enrolled', 'who is enrolled'],
  ['institution', 'everybody at the institution'],
  ['by-topic', 'by topic'],
  ['by-date', 'by date'],
])
/** What a course's setting is set to, in words. */
export const courseSettingValue = (value: unknown): string => words.get(value) ?? String(value)
