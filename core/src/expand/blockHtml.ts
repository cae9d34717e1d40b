import { formatOf, renderName, type FieldValues } from '../naming/index.ts'
import { letIn } from '../allow/index.ts'
import { storedImage, type KeptBlockBody, type Template } from '../template/index.ts'
import { escapeHtml, fillHtml } from './fillHtml.ts'

/** A link to a part, e.g. `ref:welcome`, and the part's name. */
export interface PartLink {
  href: string
  name: string
}
/** One line of a list of dates, both already in words. */
export interface DateLine {
  date: string
  text: string
  href: string | null
}
/** One line of the schedule: a turn of a repeated module. */
export interface ScheduleLine {
  dates: string
  topic: string
  module: PartLink
  due: DateLine[]
}

/** What a block's HTML may speak of besides itself. */
export interface BlockSurroundings {
  template: Template
  values: FieldValues
  /** Answers to fill-ins of course-wide scope, by block key. */
  answers: Readonly<Record<string, string>>
  instructors: readonly { name: string; email: string }[]
  /** null when the part is not in this course. */
  linkTo: (partKey: string) => PartLink | null
  /** Links to what the page's own module holds. */
  moduleLinks: () => PartLink[]
  /** What is due in the page's own module, or the dates of the term. */
  keyDates: (of: 'module' | 'term') => DateLine[]
  schedule: () => ScheduleLine[]
}

const paragraph = (text: string): string => `<p>${escapeHtml(text)}</p>`
const heading = (text: string): string => (text === '' ? '' : `<h3>${escapeHtml(text)}</h3>`)
const anchor = (href: string, text: string): string =>
  `<a href="${escapeHtml(href)}">${escapeHtml(text)}</a>`
const list = (tag: 'ul' | 'ol', inner: readonly string[]): string =>
  `<${tag}>${inner.map((one) => `<li>${one}</li>`).join('')}</${tag}>`
const listOfLinks = (links: readonly PartLink[]): string =>
  list(
    'ul',
    links.map((link) => anchor(link.href, link.name)),
  )
const dateLine = (line: DateLine): string =>
  `${escapeHtml(line.date)}: ${line.href === null ? escapeHtml(line.text) : anchor(line.href, line.text)}`

/**
 * Links to parts lead to this course's own copy. One marked `data-follows="name"` also shows the part's name as it is
 * here; a link to a part that this course does not have becomes plain words. Stretches are bounded, so that hostile HTML
 * takes no longer than other.
 */
const withPartLinks = (html: string, surroundings: BlockSurroundings): string =>
  html.replace(
    /<a\b([^<>]{0,200}?)\bhref="part:([a-z0-9-]{1,80})"([^<>]{0,200})>(.{0,500}?)<\/a>/gs,
    (_, before: string, key: string, after: string, inner: string) => {
      const link = surroundings.linkTo(key)
      if (!link) return inner
      const follows = /\bdata-follows="name"/.test(before + after)
      const others = (before + after).replace(/\s*data-follows="name"/, '').trim()
      return `<a${others === '' ? '' : ` ${others}`} href="${escapeHtml(link.href)}">${follows ? escapeHtml(link.name) : inner}</a>`
    },
  )

/** Images are named as they are kept on the platform; one that the template does not have stays as it is. */
const withImages = (html: string, assets: Template['assets']): string =>
  html.replace(/\bsrc="asset:([\w.-]{1,120})"/g, (whole, name: string) => {
    const asset = assets.find((one) => one.fileName === name)
    return asset ? `src="asset:${storedImage(asset).name}"` : whole
  })

/**
 * The inner HTML that deployment writes for a block; `answer` is what stands in a fill-in already answered. Whatever the
 * template says, nothing in it runs or loads by itself.
 */
export const blockHtml = (
  block: KeptBlockBody,
  surroundings: BlockSurroundings,
): { html: string; answer: string | null } => {
  const { html, answer } = writtenBlock(block, surroundings)
  return { html: letIn(html).html, answer }
}

const writtenBlock = (
  block: KeptBlockBody,
  surroundings: BlockSurroundings,
): { html: string; answer: string | null } => {
  const { template, values } = surroundings
  const plain = (html: string) => ({ html, answer: null })
  const written = (html: string) =>
    withImages(withPartLinks(fillHtml(html, values), surroundings), template.assets)
  const line = (text: string) => fillHtml(escapeHtml(text), values)
  const minutes = (count: number | undefined) =>
    count === undefined ? [] : [`${count} ${count === 1 ? 'minute' : 'minutes'}`]
  switch (block.kind) {
    case 'fixed-text':
      return plain(written(block.html))
    case 'guidance-note':
      return plain(`<p><strong>Note to the instructor.</strong></p>${written(block.html)}`)
    case 'take-care':
      return plain(`<p><strong>Take care.</strong></p>${written(block.html)}`)
    case 'in-short':
      return plain(`<p><strong>In short.</strong></p>${written(block.html)}`)
    case 'fill-in': {
      const label = block.label ? heading(block.label) : ''
      if (block.answer !== undefined)
        return { html: label + written(block.answer), answer: block.answer }
      const answer = block.scope === 'course' ? (surroundings.answers[block.key] ?? null) : null
      return { html: label + paragraph(answer ?? block.prompt), answer }
    }
    case 'house-text': {
      const houseText = template.houseTexts.find((one) => one.key === block.houseText)
      // Linked, the course leads to where the words are kept: they are current at once.
      if (block.mode === 'linked')
        return plain(
          houseText ? `<p>${anchor(`house-text:${houseText.key}`, houseText.title)}</p>` : '',
        )
      return plain(houseText?.revisions.at(-1)?.html ?? '')
    }
    case 'title':
      return plain(`<h2>${escapeHtml(renderName(formatOf(block.text), values).text)}</h2>`)
    case 'banner': {
      const asset = template.assets.find((one) => one.key === block.image)
      return plain(
        asset
          ? `<p><img src="asset:${escapeHtml(storedImage(asset).name)}" alt="${escapeHtml(asset.alternativeText)}"></p>`
          : '',
      )
    }
    case 'signposts': {
      const links = block.links.flatMap((link) => {
        const target = surroundings.linkTo(link.to)
        return target ? [`<a href="${escapeHtml(target.href)}">${line(link.text)}</a>`] : []
      })
      return plain((block.label ? heading(block.label) : '') + list('ul', links))
    }
    case 'work-list':
      return plain(heading(block.label) + listOfLinks(surroundings.moduleLinks()))
    case 'objectives':
      return plain(
        heading(block.label) +
          list(
            'ol',
            block.objectives.map((one) => line(one.text)),
          ),
      )
    case 'key-dates':
      return plain(heading(block.label) + list('ul', surroundings.keyDates(block.of).map(dateLine)))
    case 'schedule': {
      const rows = surroundings
        .schedule()
        .map(
          (row) =>
            `<tr><th scope="row">${anchor(row.module.href, row.module.name)}</th><td>${escapeHtml(row.dates)}</td><td>${escapeHtml(row.topic)}</td><td>${row.due.map(dateLine).join('<br>')}</td></tr>`,
        )
      return plain(
        `${heading(block.label)}<table><thead><tr><th scope="col">Module</th><th scope="col">Dates</th><th scope="col">Topic</th><th scope="col">Due</th></tr></thead><tbody>${rows.join('')}</tbody></table>`,
      )
    }
    case 'contact-card':
      return plain(
        heading(block.label) +
          list(
            'ul',
            surroundings.instructors.map(
              (one) => `${escapeHtml(one.name)}, ${anchor(`mailto:${one.email}`, one.email)}`,
            ),
          ),
      )
    case 'checklist':
      return plain(heading(block.label) + list('ul', block.lines.map(line)))
    case 'video': {
      const told = [
        ...minutes(block.minutes),
        block.captions ? 'with captions' : 'without captions',
      ]
      return plain(
        `<h3>${line(block.title)}</h3><p><a href="${escapeHtml(block.url)}">${line(block.title)}</a> (${told.join(', ')})</p>${block.transcript ? `<p>${anchor(block.transcript, 'Transcript')}</p>` : ''}`,
      )
    }
    case 'reading':
      return plain(
        heading(block.label) +
          list(
            'ul',
            block.works.map(
              (work) =>
                `${work.url ? `<a href="${escapeHtml(work.url)}">${line(work.text)}</a>` : line(work.text)}${minutes(
                  work.minutes,
                )
                  .map((one) => ` (about ${one})`)
                  .join('')}`,
            ),
          ),
      )
    case 'assignment-brief': {
      const piece = (title: string, html: string) =>
        html === '' ? '' : heading(title) + written(html)
      return plain(
        piece('Why you do it', block.why) +
          piece('What to do', block.whatToDo) +
          piece('What to hand in', block.handIn) +
          piece('How it is judged', block.judged),
      )
    }
    case 'discussion-prompt': {
      const told = [
        ...(block.firstBy ? [`Write first by ${line(block.firstBy)}.`] : []),
        ...(block.answers > 0
          ? [
              `Answer ${block.answers === 1 ? 'one classmate' : `${block.answers} classmates`}${block.answersBy ? ` by ${line(block.answersBy)}` : ''}.`,
            ]
          : []),
      ]
      return plain(written(block.question) + (told.length > 0 ? `<p>${told.join(' ')}</p>` : ''))
    }
    case 'table': {
      const row = (cells: readonly string[]) =>
        `<tr>${cells.map((cell) => `<td>${line(cell)}</td>`).join('')}</tr>`
      return plain(
        `<table>${block.caption === '' ? '' : `<caption>${line(block.caption)}</caption>`}<thead><tr>${block.header.map((cell) => `<th scope="col">${line(cell)}</th>`).join('')}</tr></thead><tbody>${block.rows.map(row).join('')}</tbody></table>`,
      )
    }
  }
}
