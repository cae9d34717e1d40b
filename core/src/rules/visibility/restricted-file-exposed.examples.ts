import { modulesIn } from '../../course/index.ts'
import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'no such file', change: () => {} },
    {
      title: 'linked from a staff page that students cannot open',
      change: ({ course, item }) => {
        course.files = [
          { id: 'f', name: 'extra time.pdf', url: '/courses/example/files/f', restricted: true },
        ]
        item('staff-notes').html += '<a href="/courses/example/files/f">List</a>'
        item('staff-notes').published = false
      },
    },
    {
      title: 'in an open module that stands in a hidden one',
      change: ({ course, module, item }) => {
        course.files = [
          { id: 'f', name: 'grades.xlsx', url: '/courses/example/files/f', restricted: true },
        ]
        const outer = module('week', 3)
        outer.published = false
        modulesIn(outer).push({
          ...outer,
          id: 'inner',
          name: 'For us',
          published: true,
          recordedAs: undefined,
          children: [
            {
              ...item('week-overview', 2),
              id: 'own',
              kind: 'file',
              name: 'Grades',
              html: null,
              target: '/courses/example/files/f',
              recordedAs: undefined,
            },
          ],
        })
      },
    },
  ],
  fails: [
    {
      title: 'linked from a page for students',
      change: ({ course, item }) => {
        course.files = [
          { id: 'f', name: 'extra time.pdf', url: '/courses/example/files/f', restricted: true },
        ]
        item('week-overview', 3).html += '<a href="/courses/example/files/f">List</a>'
      },
      evidence: 'a file kept from students (its name is not told)',
    },
    {
      title: 'shown in a module',
      change: ({ course, module, item }) => {
        course.files = [
          { id: 'f', name: 'grades.xlsx', url: '/courses/example/files/f', restricted: true },
        ]
        module('week', 2).children.push({
          ...item('week-overview', 2),
          id: 'own',
          kind: 'file',
          name: 'Grades of A. Student',
          html: null,
          target: '/courses/example/files/f',
          recordedAs: undefined,
        })
      },
      evidence: 'a file kept from students (its name is not told)',
    },
  ],
}
