import { formatOf, renderName, type FieldValues } from '../naming/index.ts'
import type { Block, Template } from '../template/index.ts'
import { escapeHtml, fillHtml } from './fillHtml.ts'

/** What a block's HTML may speak of besides itself. */
export interface BlockSurroundings {
  template: Template
  values: FieldValues
  /** Answers to fill-ins of course-wide scope, by block key. */
  answers: Readonly<Record<string, string>>
  /** Reference to a part, e.g. `ref:welcome`, and its name; null when the part is not in this course. */
  linkTo: (partKey: string) => { href: string; name: string } | null
  /** Links to what the page's own module holds. */
  moduleLinks: () => { href: string; name: string }[]
}

const paragraph = (text: string): string => `<p>${escapeHtml(text)}</p>`
const heading = (text: string): string => `<h3>${escapeHtml(text)}</h3>`
const listOfLinks = (links: { href: string; name: string }[]): string =>
  `<ul>${links.map((link) => `<li><a href="${escapeHtml(link.href)}">${escapeHtml(link.name)}</a></li>`).join('')}</ul>`

const withPartLinks = (html: string, surroundings: BlockSurroundings): string =>
  html.replace(/href="part:([a-z0-9-]+)"/g, (whole, key: string) => {
    const link = surroundings.linkTo(key)
    return link ? `href="${escapeHtml(link.href)}"` : whole
  })

/** The inner HTML that deployment writes for a block; `answer` is what stands in a fill-in already answered. */
export const blockHtml = (block: Block, surroundings: BlockSurroundings): { html: string; answer: string | null } => {
  const { template, values } = surroundings
  const plain = (html: string) => ({ html, answer: null })
  switch (block.kind) {
    case 'fixed-text':
      return plain(withPartLinks(fillHtml(block.html, values), surroundings))
    case 'guidance-note':
      return plain(`<p><strong>Note to the instructor.</strong></p>${withPartLinks(fillHtml(block.html, values), surroundings)}`)
    case 'fill-in': {
      const answer = block.scope === 'course' ? (surroundings.answers[block.key] ?? null) : null
      const label = block.label ? heading(block.label) : ''
      return { html: label + paragraph(answer ?? block.prompt), answer }
    }
    case 'house-text': {
      const revision = template.houseTexts.find((one) => one.key === block.houseText)?.revisions.at(-1)
      return plain(revision?.html ?? '')
    }
    case 'title':
      return plain(`<h2>${escapeHtml(renderName(formatOf(block.text), values).text)}</h2>`)
    case 'banner': {
      const asset = template.assets.find((one) => one.key === block.image)
      return plain(asset ? `<p><img src="asset:${escapeHtml(asset.fileName)}" alt="${escapeHtml(asset.alternativeText)}"></p>` : '')
    }
    case 'signposts': {
      const links = block.links.flatMap((link) => {
        const target = surroundings.linkTo(link.to)
        return target ? [{ href: target.href, name: renderText(link.text, values) }] : []
      })
      return plain((block.label ? heading(block.label) : '') + listOfLinks(links))
    }
    case 'work-list':
      return plain(heading(block.label) + listOfLinks(surroundings.moduleLinks()))
  }
}

/** Plain text with its fields written out. */
const renderText = (text: string, values: FieldValues): string =>
  fillHtml(escapeHtml(text), values).replace(/&(amp|lt|gt|quot);/g, (_, name: string) => ({ amp: '&', lt: '<', gt: '>', quot: '"' })[name] ?? '')
