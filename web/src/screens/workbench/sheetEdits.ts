import {
  clipParts,
  ClippedParts,
  type Exception,
  freshKey,
  homePageKey,
  isModule,
  type ItemKind,
  kindWords,
  type ListedRow,
  newBlock,
  newPart,
  partsOfListed,
  partsWithin,
  pasteEdits,
  readDocument,
  takenKeys,
  type Template,
  type TemplateEdit,
} from '@wickerframe/core'
import type { OutlineRow } from './outlineRows.ts'

/** Edits of whole rows: pure, so that every one of them can be tried out before it is made. */

/** Moves a row up or down among its siblings. */
export const moveBy = (row: OutlineRow, by: number): TemplateEdit[] => {
  const to = row.index + by
  if (row.index < 0 || to < 0 || to >= row.siblings || row.row === 'exception') return []
  return row.row === 'element'
    ? [{ edit: 'move-block', part: homePageKey, block: row.block.key, at: to }]
    : [{ edit: 'move-part', part: row.key, parent: row.parent, at: to }]
}

/** Takes what exceptions say of a part away, as the part leaves their module. */
const withoutMentions = (key: string, template: Template): TemplateEdit[] =>
  partsWithin(template.parts)
    .filter(isModule)
    .flatMap((module) =>
      module.exceptions.flatMap((exception): TemplateEdit[] =>
        (exception.leaveOut !== 'all' && exception.leaveOut.includes(key)) ||
        exception.set.some((set) => set.part === key)
          ? [
              {
                edit: 'set-field',
                part: module.key,
                field: ['exceptions', exception.key],
                was: exception,
                value: {
                  ...exception,
                  leaveOut:
                    exception.leaveOut === 'all'
                      ? 'all'
                      : exception.leaveOut.filter((other) => other !== key),
                  set: exception.set.filter((set) => set.part !== key),
                },
              },
            ]
          : [],
      ),
    )
/** Moves a part; where it leaves its module, exceptions of that module speak of it no more. */
const moveTo = (
  row: OutlineRow,
  parent: string | null,
  at: number,
  template: Template,
): TemplateEdit[] => [
  ...(parent === row.parent ? [] : withoutMentions(row.key, template)),
  { edit: 'move-part', part: row.key, parent, at },
]

/** Moves a part into the module or exception above it. */
export const moveIn = (
  row: OutlineRow,
  rows: readonly OutlineRow[],
  template: Template,
): TemplateEdit[] => {
  if (row.row !== 'part') return []
  const before = rows
    .slice(0, rows.indexOf(row))
    .findLast(
      (candidate) =>
        candidate.depth === row.depth &&
        candidate.parent === row.parent &&
        candidate.row === 'part' &&
        isModule(candidate.part),
    )
  return before ? moveTo(row, before.key, 2000, template) : []
}

/** Moves a part out of its module, to just after it. */
export const moveOut = (
  row: OutlineRow,
  rows: readonly OutlineRow[],
  template: Template,
): TemplateEdit[] => {
  const parent = rows.find(({ key }) => key === row.parent)
  if (row.row !== 'part' || !parent || parent.row === 'home') return []
  const outer = parent.row === 'exception' ? rows.find((row) => row.key === parent.parent) : parent
  return outer ? moveTo(row, outer.parent, outer.index + 1, template) : []
}

/** Where a new row goes: into an open module or exception, otherwise after the row. */
export const placeAfter = (
  row: OutlineRow | undefined,
  template: Template,
  wantsTop: boolean,
): { parent: string | null; at: number } => {
  if (!row || row.row === 'home' || row.row === 'element')
    return { parent: null, at: template.parts.length }
  if (row.row === 'exception') return { parent: row.key, at: row.exception.add.length }
  if (isModule(row.part) && !wantsTop) return { parent: row.key, at: row.part.items.length }
  return { parent: row.parent, at: row.index + 1 }
}

/** The edits that add a row, its key, and the name it comes with; empty where it comes with none. */
export interface NewRow {
  edits: TemplateEdit[]
  key: string
  given: string
}
/** A new row: into the row where that holds others, else after it. @param where `beside`: after it in any case */
export const addRow = (
  kind: ItemKind | 'module',
  row: OutlineRow | undefined,
  template: Template,
  where: 'usual' | 'beside' = 'usual',
): NewRow => {
  if (kind !== 'module' && (row?.row === 'element' || row?.row === 'home')) {
    const key = freshKey('passage', new Set(template.home.blocks.map((block) => block.key)))
    const block = newBlock('fixed-text', key, template)
    return {
      edits: block
        ? [
            {
              edit: 'add-block',
              part: homePageKey,
              at: row.row === 'element' ? row.index + 1 : 0,
              block,
            },
          ]
        : [],
      key: `${homePageKey}/${key}`,
      given: '',
    }
  }
  const place =
    where === 'beside' && row?.row === 'part'
      ? { parent: row.parent, at: row.index + 1 }
      : placeAfter(row, template, kind === 'module' && row?.row === 'part')
  const key = freshKey(kind, takenKeys(template))
  const given = kind === 'module' ? 'New module' : `New ${kindWords(kind)}`
  return { edits: [{ edit: 'add-part', ...place, part: newPart(kind, key, given) }], key, given }
}

/** Makes one repetition of a module different. */
export const makeDifferent = (
  module: string,
  anchor: Exception['anchor'],
  template: Template,
): { edits: TemplateEdit[]; key: string } => {
  const name = anchor.at === 'number' ? `${module}-${anchor.number}` : `${module}-${anchor.at}`
  const key = freshKey(name, takenKeys(template))
  const exception: Exception = { key, anchor, omit: false, leaveOut: [], set: [], add: [] }
  return {
    edits: [
      { edit: 'set-field', part: module, field: ['exceptions', key], was: null, value: exception },
    ],
    key,
  }
}

/** Removes rows; what stands inside another removed row goes with it. */
export const removeRows = (rows: readonly OutlineRow[], template: Template): TemplateEdit[] => {
  const inside = new Set(
    rows.flatMap((row) =>
      row.row === 'part' && isModule(row.part)
        ? partsWithin([row.part])
            .slice(1)
            .map((part) => part.key)
        : row.row === 'exception'
          ? partsWithin(row.exception.add).map((part) => part.key)
          : [],
    ),
  )
  const under = (row: OutlineRow) =>
    row.row === 'exception' &&
    rows.some((other) => other.row === 'part' && other.key === row.module)
  return rows
    .filter((row) => !inside.has(row.key) && !under(row))
    .flatMap((row): TemplateEdit[] => {
      switch (row.row) {
        case 'part':
          return [...withoutMentions(row.key, template), { edit: 'remove-part', part: row.key }]
        case 'element':
          return [{ edit: 'remove-block', part: homePageKey, block: row.block.key }]
        case 'exception':
          return [
            {
              edit: 'set-field',
              part: row.module,
              field: ['exceptions', row.key],
              was: row.exception,
              value: null,
            },
          ]
        case 'home':
          return []
      }
    })
}

/** Chosen rows as text for the clipboard: cells by tab for other programs, the parts themselves for a template. */
export const clipRows = (rows: readonly OutlineRow[], template: Template): string | null => {
  const clip = clipParts(
    template,
    new Set(rows.flatMap((row) => (row.row === 'part' ? [row.key] : []))),
  )
  return clip && JSON.stringify(clip)
}

/** The edits that paste clipped parts after a row; null when the text is no such clip. */
export const pasteRows = (
  text: string,
  row: OutlineRow | undefined,
  template: Template,
): { edits: TemplateEdit[]; keys: string[] } | null => {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    return null
  }
  const clip = readDocument(ClippedParts, json)
  if (!clip.ok) return null
  const holdsModule = clip.value.parts.some(isModule)
  const place = placeAfter(row, template, holdsModule)
  return pasteEdits(template, clip.value, place.parent, place.at)
}

/**
 * The edits that put listed rows in, and the key of the first: where a new row would come, but modules after the whole module that the
 * row stands in, and not inside it.
 */
export const listEdits = (
  listed: readonly ListedRow[],
  row: OutlineRow | undefined,
  template: Template,
): { edits: TemplateEdit[]; first: string | undefined } => {
  const clip = partsOfListed(listed)
  const top = clip.parts.some(isModule)
    ? template.parts.findIndex((part) => partsWithin([part]).some(({ key }) => key === row?.key))
    : -1
  const place = top >= 0 ? { parent: null, at: top + 1 } : placeAfter(row, template, false)
  const { edits, keys } = pasteEdits(template, clip, place.parent, place.at)
  return { edits, first: keys[0] }
}

/** Where a dragged row comes to lie: before or after another, or inside it. */
export const dropOn = (
  dragged: OutlineRow,
  target: OutlineRow,
  where: 'before' | 'after' | 'inside',
  template: Template,
): TemplateEdit[] => {
  if (dragged.key === target.key) return []
  if (dragged.row === 'element') {
    if (target.row !== 'element') return []
    const to = target.index + (where === 'after' ? 1 : 0)
    return [
      {
        edit: 'move-block',
        part: homePageKey,
        block: dragged.block.key,
        at: to > dragged.index ? to - 1 : to,
      },
    ]
  }
  if (dragged.row !== 'part' || target.row === 'element' || target.row === 'home')
    return dragged.row === 'part' && target.row === 'home' ? moveTo(dragged, null, 0, template) : []
  if (target.row === 'exception' || where === 'inside')
    return moveTo(dragged, target.key, where === 'inside' ? 2000 : 0, template)
  const to = target.index + (where === 'after' ? 1 : 0)
  return moveTo(
    dragged,
    target.parent,
    dragged.parent === target.parent && to > dragged.index ? to - 1 : to,
    template,
  )
}
