import { localDateOf, localTimeOf } from '../calendar/index.ts'
import type { Change } from './change.ts'
import { everyCourseItem, everyModule, type Course } from './course.ts'

/** One change in words; text that changes stands beside it. */
export interface ChangeInWords {
  says: string
  /** HTML before and after, where a page changes. */
  text: { before: string; after: string } | null
}

const settingWords: Readonly<Record<string, string>> = {
  notification: 'students told of new posts',
  postFirst: 'students write before they read',
  graceMinutes: 'minutes of grace',
  attempts: 'attempts',
  minutes: 'minutes of time',
  handIn: 'what is handed in',
  practice: 'practice, outside the grade',
}

const valueWords = (value: unknown): string =>
  value === null || value === undefined
    ? 'nothing'
    : value === true
      ? 'yes'
      : value === false
        ? 'no'
        : `“${String(value)}”`

/** What a change set does, change by change, in the words of people who do not know what a change set is. */
export const changesInWords = (
  changes: readonly Change[],
  course: Course,
  timeZone: string,
): ChangeInWords[] => {
  const items = new Map(everyCourseItem(course).map(({ item }) => [item.id, item]))
  const modules = new Map(everyModule(course.modules).map((module) => [module.id, module]))
  const nameOf = (id: string | null): string =>
    id === null
      ? 'outside every module'
      : `“${items.get(id)?.name ?? modules.get(id)?.name ?? id.replace(/^ref:/, '')}”`
  const moment = (instant: string | null): string =>
    instant === null
      ? 'none'
      : `${localDateOf(instant, timeZone)} ${localTimeOf(instant, timeZone)}`
  const plain = (says: string): ChangeInWords => ({ says, text: null })
  const fieldWords = (id: string, field: string, value: unknown): ChangeInWords[] => {
    const name = nameOf(id)
    const item = items.get(id)
    switch (field) {
      case 'name':
        return [plain(`${name} is renamed to “${String(value)}”`)]
      case 'published':
        return [plain(value ? `${name} is shown to students` : `${name} is hidden from students`)]
      case 'opensAt':
        return [
          plain(
            value === null
              ? `${name} opens without a date`
              : `${name} opens ${moment(String(value))}`,
          ),
        ]
      case 'dueAt':
        return [plain(`${name} is due ${moment(value === null ? null : String(value))}`)]
      case 'closesAt':
        return [plain(`${name} closes ${moment(value === null ? null : String(value))}`)]
      case 'points':
        return [plain(`${name} carries ${value === null ? 'no' : String(value)} points`)]
      case 'category':
        return [plain(`${name} counts in ${valueWords(value)}`)]
      case 'html':
        return [
          {
            says: `The text of ${name} changes`,
            text: { before: item?.html ?? '', after: String(value) },
          },
        ]
      case 'rubric':
        return [plain(`${name} gets its rubric`)]
      case 'work': {
        const before = (item?.work ?? {}) as Record<string, unknown>
        return Object.entries((value ?? {}) as Record<string, unknown>).flatMap(
          ([setting, wanted]) =>
            before[setting] === wanted
              ? []
              : [
                  plain(
                    `${name}: ${settingWords[setting] ?? setting} becomes ${valueWords(wanted)}`,
                  ),
                ],
        )
      }
      default:
        return [plain(`${name}: ${field} becomes ${valueWords(value)}`)]
    }
  }
  return changes.flatMap((change): ChangeInWords[] => {
    switch (change.change) {
      case 'set-item':
      case 'set-module':
        return Object.entries(change.fields).flatMap(([field, value]) =>
          fieldWords(change.id, field, value),
        )
      case 'set-course': {
        const { change: _, settings, grading, ...fields } = change
        return [
          ...Object.entries(fields).map(([field, value]) =>
            plain(
              field === 'name'
                ? `The course is renamed to “${String(value)}”`
                : field === 'published'
                  ? value
                    ? 'The course is published'
                    : 'The course is unpublished'
                  : `The course’s ${field === 'opensAt' ? 'opening' : field === 'closesAt' ? 'closing' : field === 'timeZone' ? 'time zone' : field} becomes ${field.endsWith('At') ? moment(value === null ? null : String(value)) : valueWords(value)}`,
            ),
          ),
          ...Object.entries(settings ?? {}).flatMap(([setting, value]) =>
            (course.settings as Record<string, unknown> | undefined)?.[setting] === value
              ? []
              : [plain(`Course setting “${setting}” becomes ${valueWords(value)}`)],
          ),
          ...(grading ? [plain('The grade categories become those of the template')] : []),
        ]
      }
      case 'set-navigation':
        return [
          plain(
            `The navigation becomes ${change.navigation.map((entry) => `${entry.label}${entry.hidden ? ' (hidden)' : ''}`).join(', ')}`,
          ),
        ]
      case 'set-home':
        return [plain(`${nameOf(change.item)} becomes the home page`)]
      case 'create-module':
        return [plain(`The module “${change.fields.name}” is made`)]
      case 'create-item':
        return [
          {
            says: `“${change.fields.name}” is made in ${nameOf(change.module)}, as the template has it`,
            text: change.fields.html ? { before: '', after: change.fields.html } : null,
          },
        ]
      case 'move-module':
        return [
          plain(
            `${nameOf(change.id)} moves to place ${(change.at ?? course.modules.length) + 1} among the modules`,
          ),
        ]
      case 'move-item':
        return [
          plain(
            `${nameOf(change.id)} moves ${change.at === null ? 'to the end' : `to place ${change.at + 1}`} in ${nameOf(change.module)}`,
          ),
        ]
      case 'remove-item':
      case 'remove-module':
        return [plain(`${nameOf(change.id)} is removed`)]
      case 'duplicate-item':
        return [plain(`${nameOf(change.id)} is duplicated`)]
    }
  })
}
