import { z } from 'zod'
import type { CoursePage } from '../context.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const length = /\b\d{1,3}(?:[.,]\d)?\s*(?:min(?:ute)?s?|hours?|h|seconds?|sec)\b|\b\d{1,2}:\d{2}\b/i
const filmAddress = /\.(?:mp4|webm|mov|m4v)(?:[?#]|$)|\/(?:watch|video|videos|film|films|embed)\b/i

export const videoLengthNoted = defineRule({
  id: 'video-length-noted',
  group: 'page content',
  title: 'Films say how long they are',
  why: 'Students on the bus start a film of fifty minutes that they took for five.',
  untold:
    'Whether the length is true. Links to other places are films only where their address says so.',
  strength: 'should',
  parameters: z.strictObject({
    place: z
      .enum(['title', 'beside', 'either'])
      .default('either')
      .describe(
        'Where the length is to stand: in the film’s title, in the text beside it, or in either',
      ),
  }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: { length: 'In “{item}” the film “{seen}” does not say how long it is{also}.' },
  check: (context, { place }) =>
    pageFaults(context, {
      applies: ({ page }) => filmsIn(page).length > 0,
      faults: ({ page }) =>
        filmsIn(page).flatMap((film) => {
          const beside = [film.paragraph - 1, film.paragraph, film.paragraph + 1].some((i) =>
            length.test(page.paragraphs[i]?.text ?? ''),
          )
          const inTitle = length.test(film.title)
          return (place !== 'beside' && inTitle) || (place !== 'title' && beside)
            ? []
            : [film.title || film.source]
        }),
      message: 'length',
      expected: 'its length in minutes',
    }),
})

const filmsIn = (
  page: CoursePage['page'],
): { title: string; source: string; paragraph: number }[] => [
  ...page.media
    .filter(({ kind, source }) => kind === 'video' || filmAddress.test(source))
    .map(({ title, source, paragraph }) => ({ title: title ?? '', source, paragraph })),
  ...page.links
    .filter((link) => filmAddress.test(link.href))
    .map((link) => ({ title: link.text, source: link.href, paragraph: link.paragraph })),
]
