import type { CourseItem } from '../../course/index.ts'
import type { RuleExamples } from '../rule.ts'

/** Shown to students, whatever it was deployed as. */
const opened = (item: CourseItem): void =>
  void Object.assign(item, { staffOnly: false, published: true })

export const examples: RuleExamples = {
  passes: [
    { title: 'for staff only, as deployed', change: () => {} },
    {
      title: 'hidden, on a platform that has nothing for staff only',
      change: ({ item }) =>
        void Object.assign(item('staff-notes'), { staffOnly: false, published: false }),
    },
    {
      title: 'open, but in a module that is hidden',
      change: ({ item, module }) => {
        opened(item('staff-notes'))
        module('casting-off').published = false
      },
    },
  ],
  fails: [
    {
      title: 'opened by mistake',
      change: ({ item }) => opened(item('staff-notes')),
      evidence: 'Notes for the instructor',
    },
    {
      title: 'opened while the course is still closed',
      change: ({ course, item }) => {
        course.published = false
        opened(item('staff-notes'))
      },
      evidence: 'Notes for the instructor',
    },
  ],
}
