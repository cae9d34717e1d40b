import type { Change } from './change/change.ts'

/** What setting a field of a module, an item or the course comes to. */
const fieldInBrief: Readonly<Record<string, string>> = {
  name: 'rename it',
  label: 'set the label',
  staffOnly: 'change who sees it',
  opensAt: 'set when it opens',
  dueAt: 'set the due date',
  closesAt: 'set when it closes',
  points: 'set the points',
  category: 'set the category',
  html: 'put the text right',
  target: 'set where it leads',
  work: 'put its settings right',
  rubric: 'give it its rubric',
  questions: 'put the questions right',
  file: 'put the file in',
  timeZone: 'set the time zone',
  settings: 'put the settings right',
  grading: 'set the grade categories',
}

const fieldsInBrief = (fields: object): string => {
  const [[field, value] = ['', null]] = Object.entries(fields)
  if (field === 'published') return value ? 'show it' : 'hide it'
  return fieldInBrief[field] ?? 'put it right'
}

/** A change in two or three words, for a button: `rename it`, `set the due date`. */
export const changeInBrief = (change: Change): string => {
  switch (change.change) {
    case 'set-course': {
      const { change: _, ...fields } = change
      return fieldsInBrief(fields)
    }
    case 'set-module':
    case 'set-item':
      return fieldsInBrief(change.fields)
    case 'set-navigation':
      return 'put the menu right'
    case 'set-home':
      return 'set the home page'
    case 'create-module':
    case 'create-item':
      return 'bring it in'
    case 'move-module':
    case 'move-item':
      return 'move it'
    case 'remove-module':
    case 'remove-item':
      return 'take it out'
    case 'duplicate-item':
      return 'copy it'
  }
}
