import { z } from 'zod'
import { Line } from '../../../document/index.ts'
import { Key } from '../../words.ts'
import { escapeHtml, heading, list, role, roleList } from '../html.ts'
import { defineBlock, imageIn } from '../kind.ts'
import { fresh, label, shared } from '../shared.ts'
import { asWritten } from '../writing.ts'

/** A signpost worked out for a course, as HTML. */
interface Stop {
  link: string
  /** What is said after it; empty: nothing. */
  about: string
  picture: string
}
const said = ({ link, about }: Stop): string => (about === '' ? link : `${link}: ${about}`)

/** Stations under one another with their numbers, joined by a line: the order in which students meet them. */
const routeHtml = (stops: readonly Stop[]): string =>
  roleList(
    'route',
    stops.map(
      (stop, i) =>
        `<li${role(i === stops.length - 1 ? 'last-stop' : 'stop')}><strong${role('number')}>${i + 1}</strong> ${said(stop)}</li>`,
    ),
  )

const cardsHtml = (stops: readonly Stop[]): string =>
  roleList(
    'cards',
    stops.map((stop) => `<li${role('leading-card')}>${stop.picture}${said(stop)}</li>`),
  )

export const signposts = defineBlock(
  'signposts',
  z.strictObject({
    ...shared,
    kind: z.literal('signposts'),
    label: label.optional(),
    as: z
      .enum(['route', 'cards'])
      .optional()
      .describe('A numbered route, or cards beside one another; without it, a list'),
    links: z
      .array(
        z.strictObject({
          text: Line(200),
          to: Key.describe('Key of the part it leads to'),
          about: Line(200, 0).optional().describe('What is found there'),
          image: Key.optional().describe('Key of a small drawing, shown on its card'),
        }),
      )
      .min(1)
      .max(30),
  }),
  {
    title: 'Signposts',
    group: 'written',
    isFixed: false,
    images: ({ links }) => links.flatMap(({ image }, i) => imageIn(image, ['links', i, 'image'])),
    htmlFields: [],
    wordFields: [],
    empty: (key, { parts: [first] }) =>
      first ? { ...fresh('signposts', key), links: [{ text: 'Begin here', to: first.key }] } : null,
    html: (block, writing) => {
      const stops = block.links.flatMap(({ text, to, about, image }): Stop[] => {
        const target = writing.linkTo(to)
        const drawing = image === undefined ? null : writing.image(image)
        return target
          ? [
              {
                link: `<a href="${escapeHtml(target.href)}">${writing.line(text)}</a>`,
                about: about ? writing.line(about) : '',
                // The words beside it say where it leads.
                picture: drawing
                  ? `<img${role('small')} width="56" height="56" src="asset:${escapeHtml(drawing.name)}" alt="">`
                  : '',
              },
            ]
          : []
      })
      const above = block.label ? heading(writing.label(block.label)) : ''
      if (!writing.hasStyle || block.as === undefined)
        return asWritten(above + list(block.as === 'route' ? 'ol' : 'ul', stops.map(said)))
      return asWritten(above + (block.as === 'route' ? routeHtml(stops) : cardsHtml(stops)))
    },
    words: () => null,
  },
)
