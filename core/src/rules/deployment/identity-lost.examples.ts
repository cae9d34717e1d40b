import { itemsIn } from '../../course/index.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'all known', change: () => {} },
    { title: 'a few removed', change: ({ course }) => void course.modules.pop() },
  ],
  fails: [
    {
      title: 'copied in again',
      change: ({ course }) => {
        for (const module of course.modules) {
          delete module.recordedAs
          for (const item of itemsIn(module)) delete item.recordedAs
        }
      },
      evidence: '1 of 48',
    },
    {
      title: 'most of it made again by hand',
      change: ({ course }) => {
        for (const module of course.modules.slice(1)) {
          delete module.recordedAs
          for (const item of itemsIn(module)) delete item.recordedAs
        }
      },
      evidence: '8 of 48',
    },
  ],
}
