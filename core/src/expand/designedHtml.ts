import { handoutTo } from '../files/index.ts'
import {
  blockKind,
  escapeHtml,
  everyPart,
  type KeptBlockBody,
  type PartLink,
  type Template,
  type Writing,
} from '../template/index.ts'
import { withPartLinks } from './blockHtml.ts'
import { asDeployed } from './asDeployed.ts'

/**
 * A block's HTML as it is designed, for no course in particular: fields stand as they are written, `{week}`, a part is named by
 * its naming format an image by its file in the template, `asset:quay.svg`, and a file
 * by its key, `handout:planner`. Nothing in it runs or loads by itself.
 * @returns null for what only a course can say
 */
export const designedHtml = (block: KeptBlockBody, template: Template): string | null => {
  const kind = blockKind(block.kind)
  if (kind.group === 'made') return null
  const linkTo = (key: string): PartLink | null => {
    const part = everyPart(template).find((part) => part.key === key)
    return part ? { href: `part:${key}`, name: part.name } : null
  }
  const writing: Writing = {
    hasStyle: template.houseStyle !== undefined,
    html: (html) => withPartLinks(html, linkTo),
    line: escapeHtml,
    label: escapeHtml,
    name: (format) => format,
    answerTo: () => null,
    instructors: [],
    linkTo,
    moduleLinks: () => [],
    keyDates: () => [],
    schedule: () => [],
    outcomes: () => [],
    houseText: (key) => {
      const found = template.houseTexts.find((text) => text.key === key)
      return found ? { key, title: found.title, html: found.revisions.at(-1)?.html ?? '' } : null
    },
    file: (key) => {
      const found = template.files.find((file) => file.key === key)
      return found ? { file: found, href: handoutTo(key) } : null
    },
    image: (key) => {
      const found = template.assets.find((asset) => asset.key === key)
      return found ? { name: found.fileName, alternativeText: found.alternativeText } : null
    },
  }
  return asDeployed(kind.html(block, writing).html, block, template)
}
