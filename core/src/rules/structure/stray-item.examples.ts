import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'only the home page stands outside the modules', change: () => {} },
    {
      title: 'a file outside the modules is another rule’s business',
      change: ({ course, item }) =>
        void course.stray.push({
          ...item('welcome'),
          id: 'f',
          kind: 'file',
          name: 'tide-table.pdf',
          recordedAs: undefined,
        }),
    },
  ],
  fails: [
    {
      title: 'an assignment outside every module',
      change: ({ course, item }) =>
        void course.stray.push({
          ...item('assignment', 2),
          id: 's',
          name: 'Extra credit: splice a rope',
          recordedAs: undefined,
        }),
      evidence: 'Extra credit: splice a rope',
    },
    {
      title: 'a page dragged out of its week',
      change: ({ course, module }) => {
        const last = module('week', 2).children.pop()
        if (last && last.kind !== 'module')
          course.stray.push({ ...last, recordedAs: undefined, name: 'Scratch page' })
      },
      evidence: 'Scratch page',
    },
  ],
}
