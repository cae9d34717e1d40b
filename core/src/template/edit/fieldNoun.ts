/** What people call a field of a part, a block or the template, where its name does not say it. */
const nouns: Readonly<Record<string, string>> = {
  audience: 'who sees it',
  opens: 'opening',
  due: 'due date',
  closes: 'closing',
  category: 'grade category',
  may: 'what instructors may do',
  html: 'text',
  url: 'address',
  acceptsInstead: 'what may stand in for it',
  keptBlocks: 'kept block',
  houseTexts: 'house text',
  assets: 'image',
  files: 'file',
  rubrics: 'rubric',
  outcomes: 'course outcome',
  policies: 'rule',
}

/** Fields that only hold others: what is meant is the one inside. */
const holders: ReadonlySet<string> = new Set(['settings', 'naming', 'grading'])

const spaced = (name: string): string =>
  name.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`).replaceAll('-', ' ')

/** A field in words, e.g. `the due date`. @param field names of fields, outermost first */
export const fieldNoun = (field: readonly string[]): string => {
  const meant = field.find((name) => !holders.has(name)) ?? field[0] ?? ''
  return `the ${nouns[meant] ?? spaced(meant)}`
}
