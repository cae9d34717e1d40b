import {
  anchorWords,
  homePageKey,
  isModule,
  partsWithin,
  type Exception,
  type Part,
  type Template,
} from '../template/index.ts'
import { compareFields, type Tell } from './change.ts'
import { compareBlocks } from './compareBlocks.ts'
import { compareQuestions } from './compareQuestions.ts'
import { movedKeys, placeWords } from './order.ts'
import type { CalledThenAndNow } from './words.ts'

const partFields = [
  'kind',
  'strength',
  'audience',
  'name',
  'repeat',
  'position',
  'span',
  'when',
  'groupings',
  'acceptsInstead',
  'inGroup',
  'url',
  'file',
  'basis',
  'assesses',
  'objectives',
] as const

interface Placed {
  part: Part
  parent: string | null
}
const placed = (parts: readonly Part[], parent: string | null = null): Placed[] =>
  parts.flatMap((part) => [
    { part, parent },
    ...(isModule(part)
      ? [
          ...placed(part.items, part.key),
          ...part.exceptions.flatMap((exception) => placed(exception.add, exception.key)),
        ]
      : []),
  ])

/** What people call a part, or the place of an exception. */
const namesIn = (template: Template): ((key: string) => string) => {
  const names = new Map([
    [homePageKey, 'the home page'],
    ...partsWithin(template.parts).flatMap((part): [string, string][] => [
      [part.key, part.name],
      ...(isModule(part)
        ? part.exceptions.map(({ anchor, key }): [string, string] => [
            key,
            `${anchorWords(anchor)} of ${part.name}`,
          ])
        : []),
    ]),
  ])
  return (key) => names.get(key) ?? key
}

const exceptionFields = ['anchor', 'omit', 'name', 'strength', 'leaveOut', 'set'] as const

const compareExceptions = (
  before: readonly Exception[],
  after: readonly Exception[],
  called: CalledThenAndNow,
  tell: Tell,
): void => {
  for (const { anchor, key } of before)
    if (!after.some((exception) => exception.key === key))
      tell('field-set', `${anchorWords(anchor)} is like the others again`)
  for (const exception of after) {
    const which = anchorWords(exception.anchor)
    const was = before.find(({ key }) => key === exception.key)
    if (was)
      compareFields(was, exception, exceptionFields, called, (words) =>
        tell('field-set', `${which}: ${words}`),
      )
    else {
      const how: string[] = []
      compareFields({ omit: false }, exception, exceptionFields.slice(1), called, (words) =>
        how.push(words),
      )
      tell('field-set', `${which} is different now${how.length > 0 ? `: ${how.join(', ')}` : ''}`)
    }
  }
}

const compareMay = (was: Part, is: Part, tell: Tell): void => {
  for (const what of ['rename', 'edit', 'remove', 'duplicate', 'move'] as const)
    if (Boolean(was.may[what]) !== Boolean(is.may[what]))
      tell('field-set', `instructors ${is.may[what] ? 'may now' : 'may no longer'} ${what} it`)
}

/** Compares what a part says and holds, wherever it stands. */
const comparePart = (was: Part, is: Part, called: CalledThenAndNow, tell: Tell): void => {
  const set = (words: string) => tell('field-set', words)
  compareFields(was, is, partFields, called, set)
  compareFields(
    was.settings,
    is.settings,
    Object.keys({ ...was.settings, ...is.settings }),
    called,
    set,
  )
  compareMay(was, is, tell)
  if (isModule(is) && isModule(was)) compareExceptions(was.exceptions, is.exceptions, called, tell)
  else if (!isModule(is) && !isModule(was)) {
    compareBlocks(was.blocks, is.blocks, called, tell)
    compareQuestions(was.questions, is.questions, tell)
  }
}

/** Compares the parts of two versions, each with its place; what stands in a part that came or went is not told again. */
export const compareParts = (
  before: Template,
  after: Template,
  called: CalledThenAndNow,
  telling: (part: string, of: string) => Tell,
): void => {
  const [old, now] = [placed(before.parts), placed(after.parts)]
  const [oldByKey, newByKey] = [old, now].map(
    (list) => new Map(list.map((place) => [place.part.key, place])),
  ) as [Map<string, Placed>, Map<string, Placed>]
  const [oldName, newName] = [namesIn(before), namesIn(after)]
  const siblings = (list: readonly Placed[], parent: string | null) =>
    list.filter((place) => place.parent === parent).map(({ part }) => part)
  const movedWithin = new Map<string | null, ReadonlySet<string>>()
  const movesIn = (parent: string | null): ReadonlySet<string> => {
    let moved = movedWithin.get(parent)
    if (!moved) {
      moved = new Set(movedKeys(siblings(old, parent), siblings(now, parent)))
      movedWithin.set(parent, moved)
    }
    return moved
  }
  for (const { part, parent } of old) {
    const wentWithModule = parent !== null && oldByKey.has(parent) && !newByKey.has(parent)
    if (!newByKey.has(part.key) && !wentWithModule)
      telling(part.key, part.name)(
        'part-removed',
        `taken out of ${parent === null ? 'the template' : oldName(parent)}`,
      )
  }
  for (const { part, parent } of now) {
    const tell = telling(part.key, part.name)
    const place = () => placeWords(siblings(now, parent), part.key, newName)
    const was = oldByKey.get(part.key)
    if (!was) {
      const cameWithModule = parent !== null && newByKey.has(parent) && !oldByKey.has(parent)
      if (!cameWithModule)
        tell('part-added', `added, ${place()}${parent === null ? '' : ` in ${newName(parent)}`}`)
      continue
    }
    if (was.parent !== parent)
      tell(
        'part-moved',
        `moved from ${was.parent === null ? 'the top' : oldName(was.parent)} to ${parent === null ? 'the top' : newName(parent)}`,
      )
    else if (movesIn(parent).has(part.key)) tell('part-moved', `moved ${place()}`)
    comparePart(was.part, part, called, tell)
  }
}
