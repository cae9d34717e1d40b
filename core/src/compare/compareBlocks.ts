import { analysePage, wordDifference } from '../page/index.ts'
import { blockName, wordFields, wordsOfBlock, type Block } from '../template/index.ts'
import { compareFields, same, type Tell } from './change.ts'
import { movedKeys, placeWords } from './order.ts'
import type { CalledThenAndNow } from './words.ts'

const plain = (html: string): string =>
  analysePage(html)
    .paragraphs.map(({ text }) => text)
    .join('\n')

/** Text of a block for showing what changed in it, or null where it has none of its own. */
const textOf = (block: Block): string | null =>
  wordsOfBlock(block)
    ?.map((words) => ('html' in words ? plain(words.html) : words.text))
    .join('\n') ?? null

/** Whether two blocks differ in how their words are set, and in nothing else. */
const differsInSetting = (was: Block, is: Block): boolean =>
  !same(was, is) &&
  Object.keys({ ...was, ...is }).every(
    (field) => wordFields.has(field) || same(was[field as keyof Block], is[field as keyof Block]),
  )

const compareBlock = (was: Block, is: Block, called: CalledThenAndNow, tell: Tell): void => {
  const [textBefore, text] = [textOf(was), textOf(is)]
  const haveText = textBefore !== null && text !== null
  if (haveText && textBefore !== text)
    tell('text-changed', `${blockName(is)} reworded`, wordDifference(textBefore, text))
  else if (haveText && differsInSetting(was, is))
    tell('text-changed', `${blockName(is)}: the same words, set otherwise`)
  const fields = Object.keys({ ...was, ...is }).filter(
    (field) => field !== 'key' && (!haveText || !wordFields.has(field)),
  )
  compareFields(was, is, fields, called, (words) => tell('field-set', `${blockName(is)}: ${words}`))
}

/** Compares the blocks of a page before and after: taken out, added, reworded, set otherwise, moved. */
export const compareBlocks = (
  before: readonly Block[],
  after: readonly Block[],
  called: CalledThenAndNow,
  tell: Tell,
): void => {
  const wereThere = new Map(before.map((block) => [block.key, block]))
  const areThere = new Map(after.map((block) => [block.key, block]))
  const nameOf = (key: string): string => {
    const block = areThere.get(key)
    return block ? blockName(block) : key
  }
  const wholeText = (block: Block, change: 'gone' | 'new') => {
    const text = textOf(block)
    return text === null ? null : [{ text, change }]
  }
  for (const block of before.filter(({ key }) => !areThere.has(key)))
    tell('block-removed', `${blockName(block)} taken out`, wholeText(block, 'gone'))
  for (const block of after) {
    const was = wereThere.get(block.key)
    if (was) compareBlock(was, block, called, tell)
    else
      tell(
        'block-added',
        `${blockName(block)} added, ${placeWords(after, block.key, nameOf)}`,
        wholeText(block, 'new'),
      )
  }
  for (const key of movedKeys(before, after))
    tell('block-moved', `${nameOf(key)} moved ${placeWords(after, key, nameOf)}`)
}
