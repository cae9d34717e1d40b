import { isShown, itemsIn, modulesIn, type CourseItem, type CourseModule } from '../course/index.ts'
import { courseValues } from '../expand/index.ts'
import { newItem, newModule, type Block, type Item, type Module } from '../template/index.ts'
import { bestFormat, literalFormat } from './bestFormat.ts'
import { isTitle } from './proposedBlocks.ts'
import { keysApart, type Proposing } from './proposing.ts'
import { onceChunks, type ModelReading } from './readModel.ts'

/** A file in a hidden place, or hidden itself, never leaves its course: it may be about a student. */
export const mayLeave = (item: CourseItem, module: CourseModule): boolean =>
  item.kind !== 'file' || (isShown(item) && isShown(module))

export const settingsOf = ({
  points,
  category,
}: {
  points: number | null
  category: string | null
}): Item['settings'] => ({
  ...(points === null ? {} : { points }),
  ...(category === null ? {} : { category }),
})

/** The format of a name that stands once: with the course's own values as fields. */
export const onceName = (name: string, { facts }: ModelReading): string =>
  bestFormat([{ name, values: courseValues(facts) }], facts.term.firstDay).format ||
  literalFormat(name)

/** A page that stands once: its wording as it is, by headings. */
export const onceBlocks = (item: CourseItem, { facts }: ModelReading): Block[] => {
  const blocks: Block[] = []
  const blockKey = keysApart()
  for (const { html, level, text } of onceChunks(item, facts)) {
    const previous = blocks.at(-1)
    if (isTitle(text, level, blocks.length === 0))
      blocks.push({ kind: 'title', key: 'title', strength: 'must', text })
    else if (previous?.kind === 'fixed-text' && level === null) previous.html += html
    else {
      const key = blockKey(level === null ? 'text' : text)
      blocks.push({ kind: 'fixed-text', key, strength: 'must', html })
    }
  }
  return blocks
}

export const onceItem = ({ keyFor, reading }: Proposing, item: CourseItem): Item => ({
  ...newItem(item.kind, keyFor(item.name, [item.id]), onceName(item.name, reading)),
  blocks: onceBlocks(item, reading),
  settings: settingsOf(item),
  audience: isShown(item) ? 'students' : 'staff',
  ...(item.target ? { url: item.target } : {}),
})

export const onceModule = (proposing: Proposing, module: CourseModule): Module => ({
  ...newModule(
    proposing.keyFor(module.name, [module.id]),
    onceName(module.name, proposing.reading),
  ),
  span: 'course',
  items: [
    ...itemsIn(module)
      .filter((item) => mayLeave(item, module))
      .map((item) => onceItem(proposing, item)),
    ...modulesIn(module).map((inner) => onceModule(proposing, inner)),
  ],
})
