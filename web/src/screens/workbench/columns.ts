import {
  ambiguityOf,
  anchorWords,
  audiences,
  blockKindWords,
  endOfDay,
  homePageKey,
  isModule,
  itemKinds,
  kindWords,
  mayWords,
  offsetWords,
  parseAnchor,
  parseFormat,
  parseMay,
  parseOffset,
  parseRepeat,
  type Part,
  repeatWords,
  strengths,
  type Template,
  type TemplateEdit,
} from '@wickerframe/core'
import type { OutlineRow } from './outlineRows.ts'

/** What typing into a cell comes to: the edits it makes, or why it cannot be, with what could be written. */
export type CellReading =
  | { ok: true; edits: TemplateEdit[]; warning?: string | undefined }
  | { ok: false; message: string }

export interface Column {
  id:
    | 'kind'
    | 'name'
    | 'rendered'
    | 'strength'
    | 'audience'
    | 'repeats'
    | 'due'
    | 'points'
    | 'category'
    | 'may'
  title: string
  /** Width in the grid, as CSS has it. */
  width: string
  /** What stands in the cell; an empty text where nothing is said. */
  text: (row: OutlineRow, template: Template) => string
  /** null where the cell cannot be edited. */
  read: ((row: OutlineRow, text: string, template: Template) => CellReading) | null
  /** The words among which one is chosen, where there are so few. */
  choices?: (template: Template) => readonly string[]
  /** Whether this row has such a cell at all. */
  editable: (row: OutlineRow) => boolean
}

const done = (...edits: TemplateEdit[]): CellReading => ({ ok: true, edits })
const failed = (message: string): CellReading => ({ ok: false, message })
const setField = (
  part: string | null,
  field: string[],
  was: unknown,
  value: unknown,
): TemplateEdit => ({ edit: 'set-field', part, field, was: was ?? null, value: value ?? null })
/** The choice that is meant: the word itself, or the only one that begins so. */
const oneOf = (text: string, choices: readonly string[]): string | null => {
  const word = text.trim().toLowerCase().replace(' ', '-')
  const begun = word === '' ? [] : choices.filter((choice) => choice.startsWith(word))
  return (
    choices.find((choice) => choice === word) ?? (begun.length === 1 ? (begun[0] ?? null) : null)
  )
}
const isPart = (row: OutlineRow): row is OutlineRow & { row: 'part'; part: Part } =>
  row.row === 'part'
const isItem = (row: OutlineRow): boolean => isPart(row) && !isModule(row.part)

const strengthEdit = (row: OutlineRow, value: string, template: Template): TemplateEdit => {
  switch (row.row) {
    case 'element':
      return {
        edit: 'set-block',
        part: homePageKey,
        block: row.block.key,
        field: 'strength',
        was: row.block.strength,
        value,
      }
    case 'exception':
      return setField(
        row.module,
        ['exceptions', row.key, 'strength'],
        row.exception.strength,
        value,
      )
    case 'home':
      return setField(homePageKey, ['strength'], template.home.strength, value)
    case 'part':
      return setField(row.key, ['strength'], row.part.strength, value)
  }
}

export const columns: readonly Column[] = [
  {
    id: 'kind',
    title: 'Kind',
    width: '5.6rem',
    choices: () => itemKinds,
    editable: isItem,
    text: (row) =>
      row.row === 'part'
        ? kindWords(row.part.kind)
        : row.row === 'home'
          ? 'home'
          : row.row === 'exception'
            ? 'different'
            : blockKindWords(row.block.kind),
    read: (row, text) => {
      const kind = oneOf(text, itemKinds)
      return kind && row.part
        ? done(setField(row.key, ['kind'], row.part.kind, kind))
        : failed(`one of ${itemKinds.map(kindWords).join(', ')}`)
    },
  },
  {
    id: 'name',
    title: 'Named',
    width: 'minmax(12rem, 1.5fr)',
    editable: (row) => row.row !== 'element' || row.block.kind === 'title' || 'label' in row.block,
    text: (row, template) =>
      row.row === 'part'
        ? row.part.name
        : row.row === 'home'
          ? template.home.name
          : row.row === 'exception'
            ? (row.exception.name ?? '')
            : row.block.kind === 'title'
              ? row.block.text
              : 'label' in row.block
                ? (row.block.label ?? '')
                : '',
    read: (row, text, template) => {
      if (row.row === 'element' && row.block.kind !== 'title')
        return done({
          edit: 'set-block',
          part: homePageKey,
          block: row.block.key,
          field: 'label',
          was: 'label' in row.block ? (row.block.label ?? null) : null,
          value: text.trim() || null,
        })
      if (row.row === 'exception' && text.trim() === '')
        return done(setField(row.module, ['exceptions', row.key, 'name'], row.exception.name, null))
      const format = parseFormat(text)
      const problem = format.ok ? null : format.problems[0]
      if (!format.ok || text.trim() === '')
        return failed(
          problem
            ? `At character ${problem.at + 1}: ${problem.message}${problem.suggestion ? `; ${problem.suggestion}` : ''}`
            : 'a name',
        )
      const edit: TemplateEdit =
        row.row === 'part'
          ? setField(row.key, ['name'], row.part.name, text)
          : row.row === 'home'
            ? setField(homePageKey, ['name'], template.home.name, text)
            : row.row === 'exception'
              ? setField(row.module, ['exceptions', row.key, 'name'], row.exception.name, text)
              : {
                  edit: 'set-block',
                  part: homePageKey,
                  block: row.block.key,
                  field: 'text',
                  was: row.block.kind === 'title' ? row.block.text : null,
                  value: text,
                }
      return { ok: true, edits: [edit], warning: ambiguityOf(format.value) ?? undefined }
    },
  },
  {
    id: 'rendered',
    title: 'In this course',
    width: 'minmax(9rem, 1.2fr)',
    editable: () => false,
    text: (row) => row.rendered,
    read: null,
  },
  {
    id: 'strength',
    title: 'Strength',
    width: '5.4rem',
    choices: () => strengths,
    editable: () => true,
    text: (row, template) =>
      row.row === 'part'
        ? row.part.strength
        : row.row === 'home'
          ? template.home.strength
          : row.row === 'element'
            ? row.block.strength
            : (row.exception.strength ?? ''),
    read: (row, text, template) => {
      const strength = oneOf(text, strengths)
      return strength ? done(strengthEdit(row, strength, template)) : failed('must, should or may')
    },
  },
  {
    id: 'audience',
    title: 'Seen by',
    width: '5.4rem',
    choices: () => audiences,
    editable: isPart,
    text: (row) => row.part?.audience ?? '',
    read: (row, text) => {
      const audience = oneOf(text, audiences)
      return audience && row.part
        ? done(setField(row.key, ['audience'], row.part.audience, audience))
        : failed('students, staff or backstage')
    },
  },
  {
    id: 'repeats',
    title: 'Repeats',
    width: '8.6rem',
    editable: (row) => isPart(row) || row.row === 'exception',
    text: (row) =>
      row.row === 'exception' ? anchorWords(row.exception.anchor) : repeatWords(row.part?.repeat),
    read: (row, text) => {
      if (row.row === 'exception') {
        const anchor = parseAnchor(text)
        return anchor.ok
          ? done(
              setField(
                row.module,
                ['exceptions', row.key, 'anchor'],
                row.exception.anchor,
                anchor.value,
              ),
            )
          : failed(anchor.problems.message)
      }
      const repeat = parseRepeat(text)
      if (!repeat.ok) return failed(repeat.problems.message)
      return row.part
        ? done(setField(row.key, ['repeat'], row.part.repeat, repeat.value))
        : failed('nothing repeats here')
    },
  },
  {
    id: 'due',
    title: 'Due',
    width: '9rem',
    editable: isItem,
    text: (row) => (row.part?.settings.due ? offsetWords(row.part.settings.due, endOfDay) : ''),
    read: (row, text) => {
      const due = text.trim() === '' ? null : parseOffset(text, endOfDay)
      if (due && !due.ok) return failed(due.problems.message)
      return row.part
        ? done(setField(row.key, ['settings', 'due'], row.part.settings.due, due?.value ?? null))
        : failed('nothing is due here')
    },
  },
  {
    id: 'points',
    title: 'Points',
    width: '3.8rem',
    editable: isItem,
    text: (row) =>
      row.part?.settings.points === undefined ? '' : String(row.part.settings.points),
    read: (row, text) => {
      const points = text.trim() === '' ? null : Number(text.replace(',', '.'))
      if (points !== null && !(points >= 0 && points <= 10_000))
        return failed('a number from 0 to 10,000, or nothing')
      return row.part
        ? done(setField(row.key, ['settings', 'points'], row.part.settings.points, points))
        : failed('nothing is marked here')
    },
  },
  {
    id: 'category',
    title: 'Category',
    width: '6.4rem',
    choices: (template) => template.grading.categories.map(({ name }) => name),
    editable: isItem,
    text: (row) => row.part?.settings.category ?? '',
    read: (row, text, template) => {
      const said = text.trim()
      const names = template.grading.categories.map(({ name }) => name)
      const begun = names.filter((name) => name.toLowerCase().startsWith(said.toLowerCase()))
      const name = names.includes(said) ? said : begun.length === 1 ? begun[0] : undefined
      if (said !== '' && name === undefined)
        return failed(
          names.length === 0
            ? 'there is none yet: they are made under “Grades and rubrics”'
            : `one of ${names.join(', ')}; or nothing`,
        )
      return row.part
        ? done(
            setField(
              row.key,
              ['settings', 'category'],
              row.part.settings.category,
              said === '' ? null : name,
            ),
          )
        : failed('nothing is marked here')
    },
  },
  {
    id: 'may',
    title: 'Instructors may',
    width: '8rem',
    editable: isPart,
    text: (row) => (row.part ? mayWords(row.part.may) : ''),
    read: (row, text) => {
      const may = parseMay(text)
      if (!may.ok) return failed(may.problems.message)
      return row.part
        ? done(setField(row.key, ['may'], row.part.may, may.value))
        : failed('this row is not theirs')
    },
  },
]
