import { blockKind, homeElements, homePageKey } from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

const wanted = ['course-title', 'instructor-contact', 'where-to-begin'] as const

export const homePageIncomplete = defineCheck({
  id: 'home-page-incomplete',
  severity: 'warning',
  title: 'The home page shows whose course it is and where to begin',
  messages: {
    lacks: 'The home page has no block for {element}.',
    twice: 'Two blocks of the home page are said to be its {element}.',
  },
  *find({ pages }): Generator<Found> {
    const blocks = pages.find(({ key }) => key === homePageKey)?.blocks ?? []
    for (const element of homeElements) {
      const count = blocks.filter((block) => block.element === element).length
      // A contact card is the contact, whether or not it says so; a banner with a title on it is both.
      const shown =
        count > 0 ||
        blocks.some((block) => {
          const shown = blockKind(block.kind).shows?.(block) ?? []
          return (!block.element || shown.includes(block.element)) && shown.includes(element)
        })
      if (!shown && wanted.some((wantedElement) => wantedElement === element))
        yield {
          part: homePageKey,
          message: 'lacks',
          values: { element: element.replaceAll('-', ' ') },
        }
      if (count > 1)
        yield {
          part: homePageKey,
          message: 'twice',
          values: { element: element.replaceAll('-', ' ') },
        }
    }
  },
})
