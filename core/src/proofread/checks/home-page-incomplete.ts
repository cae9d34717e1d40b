import { homeElements, homePageKey } from '../../template/index.ts'
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
  *find({ template }): Generator<Found> {
    for (const element of homeElements) {
      const count = template.home.blocks.filter((block) => block.element === element).length
      if (count === 0 && wanted.some((wantedElement) => wantedElement === element))
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
