import { withHandoutLinks, withImages } from '../files/index.ts'
import { formatOf, renderName, type FieldValues } from '../naming/index.ts'
import { asDeployed } from './asDeployed.ts'
import {
  blockKind,
  escapeHtml,
  leftAs,
  spotsIn,
  withReader,
  storedImage,
  withSpots,
  type DateLine,
  type KeptBlockBody,
  type OutcomeLine,
  type PartLink,
  type ScheduleLine,
  type Template,
  type Writing,
} from '../template/index.ts'
import { handoutInCourse } from './fileForCourse.ts'
import { fillHtml, fillText } from './fillHtml.ts'

/** What a block's HTML may speak of besides itself. */
export interface BlockSurroundings {
  template: Template
  values: FieldValues
  /** Answers to fill-ins of course-wide scope, by block key. */
  answers: Readonly<Record<string, string>>
  instructors: readonly { name: string; email: string }[]
  /** How the platform wants the first name of whoever reads the page; null: it puts none in. */
  reader: string | null
  /** null when the part is not in this course. */
  linkTo: (partKey: string) => PartLink | null
  /** Links to what the page's own module holds. */
  moduleLinks: () => PartLink[]
  /** What is due in the page's own module, or the dates of the term. */
  keyDates: (of: 'module' | 'term') => DateLine[]
  schedule: () => ScheduleLine[]
  outcomes: () => OutcomeLine[]
}

/**
 * Links to parts lead to this course's own copy. One marked `data-follows="name"` also shows the part's name as it is
 * here; a link to a part that this course does not have becomes plain words. Stretches are bounded, so that hostile HTML
 * takes no longer than other.
 */
export const withPartLinks = (html: string, linkTo: Writing['linkTo']): string =>
  html.replace(
    /<a\b([^<>]{0,200}?)\bhref="part:([a-z0-9-]{1,80})"([^<>]{0,200})>(.{0,500}?)<\/a>/gs,
    (_, before: string, key: string, after: string, inner: string) => {
      const link = linkTo(key)
      if (!link) return inner
      const follows = /\bdata-follows="name"/.test(before + after)
      const others = (before + after).replace(/\s*data-follows="name"/, '').trim()
      return `<a${others === '' ? '' : ` ${others}`} href="${escapeHtml(link.href)}">${follows ? escapeHtml(link.name) : inner}</a>`
    },
  )

/** Images are named as they are kept on the platform; one that the template does not have stays as it is. */
const withImagesKept = (html: string, assets: Template['assets']): string =>
  withImages(html, (name) => {
    const asset = assets.find((asset) => asset.fileName === name)
    return asset ? `asset:${storedImage(asset).name}` : null
  })

/** Links to files lead to what this course gets of them; one that the template does not have leads nowhere. */
const withFiles = (html: string, files: Template['files'], values: FieldValues): string =>
  withHandoutLinks(html, (key) => {
    const file = files.find((file) => file.key === key)
    return file ? handoutInCourse(file, values) : '#'
  })

/**
 * What the kinds of block write with, in this course.
 * @param spots is given what each spot within a sentence says, as HTML; null where there are none
 */
export const writingIn = (surroundings: BlockSurroundings, spots: string[] | null): Writing => {
  const { template, values, answers, instructors, reader } = surroundings
  const { linkTo, moduleLinks, keyDates, schedule, outcomes } = surroundings
  // Last, since what a platform puts a name in for may look like anything else that is put in.
  const addressed = (text: string): string => withReader(text, reader)
  const filled = (html: string): string => {
    const text = fillHtml(html, values)
    if (!spots) return addressed(text)
    spots.push(...spotsIn(text).map(addressed))
    return addressed(withSpots(text))
  }
  return {
    hasStyle: template.houseStyle !== undefined,
    html: (html) =>
      withFiles(
        withImagesKept(withPartLinks(filled(html), linkTo), template.assets),
        template.files,
        values,
      ),
    line: (text) => filled(escapeHtml(text)),
    label: (text) => addressed(fillHtml(escapeHtml(text), values)),
    name: (format) => renderName(formatOf(format), values).text,
    answerTo: (key) => answers[key] ?? null,
    instructors,
    linkTo,
    moduleLinks,
    keyDates,
    schedule,
    outcomes,
    houseText: (key) => {
      const found = template.houseTexts.find((text) => text.key === key)
      return found ? { key, title: found.title, html: found.revisions.at(-1)?.html ?? '' } : null
    },
    file: (key) => {
      const found = template.files.find((file) => file.key === key)
      return found ? { file: found, href: handoutInCourse(found, values) } : null
    },
    image: (key) => {
      const found = template.assets.find((asset) => asset.key === key)
      return found
        ? { name: storedImage(found).name, alternativeText: found.alternativeText }
        : null
    },
  }
}

/** Pieces in the order in which they stand in HTML; those that do not stand there are left out. */
const inOrder = (pieces: readonly string[], html: string): string[] => {
  const from = new Map<string, number>()
  return pieces
    .map((piece) => {
      const at = html.indexOf(piece, from.get(piece) ?? 0)
      from.set(piece, at + piece.length)
      return { piece, at }
    })
    .filter(({ at }) => at >= 0)
    .sort((one, other) => one.at - other.at)
    .map(({ piece }) => piece)
}

/**
 * The inner HTML that deployment writes for a block; `answer` is what stands in a fill-in already answered, `asks` the pieces of
 * the HTML that ask the instructor. Whatever the template says, nothing in it runs or loads by itself.
 */
export const blockHtml = (
  block: KeptBlockBody,
  surroundings: BlockSurroundings,
): { html: string; answer: string | null; asks: string[] } => {
  const kind = blockKind(block.kind)
  const spots: string[] = []
  const written = kind.html(block, writingIn(surroundings, kind.isFixed ? spots : null))
  const { template } = surroundings
  const html = asDeployed(written.html, block, template)
  return {
    html,
    answer: written.answer,
    asks:
      leftAs(block) === 'asked'
        ? written.pieces.map((piece) => asDeployed(piece, null, template))
        : inOrder(spots, html),
  }
}

/** A block whose label says what stands above it in this course: what is read of a page is held against it. */
export const labelled = (
  block: KeptBlockBody,
  { values, reader }: Pick<BlockSurroundings, 'values' | 'reader'>,
): KeptBlockBody => {
  if (!('label' in block) || !block.label?.includes('{')) return block
  return { ...block, label: fillText(block.label, values, reader) }
}
