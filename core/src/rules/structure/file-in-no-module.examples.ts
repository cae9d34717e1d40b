import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'the platform tells of no files', change: () => {} },
    {
      title: 'a file that a page links',
      change: ({ course, item }) => {
        course.files = [
          { id: 'f', name: 'tides.pdf', url: '/courses/example/files/f', restricted: false },
        ]
        item('week-overview', 3).html += '<a href="/courses/example/files/f?download=1">Tides</a>'
      },
    },
    {
      title: 'a file kept from students',
      change: ({ course }) =>
        void (course.files = [
          { id: 'f', name: 'grades.xlsx', url: '/courses/example/files/f', restricted: true },
        ]),
    },
  ],
  fails: [
    {
      title: 'uploaded and forgotten',
      change: ({ course }) =>
        void (course.files = [
          { id: 'f', name: 'tides.pdf', url: '/courses/example/files/f', restricted: false },
        ]),
      evidence: 'tides.pdf',
    },
    {
      title: 'one of two',
      change: ({ course, item }) => {
        course.files = [
          { id: 'f', name: 'tides.pdf', url: '/courses/example/files/f', restricted: false },
          { id: 'g', name: 'streams.pdf', url: '/courses/example/files/g', restricted: false },
        ]
        item('week-overview', 3).html += '<a href="/courses/example/files/f">Tides</a>'
      },
      evidence: 'streams.pdf',
    },
  ],
}
