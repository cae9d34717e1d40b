import type { RuleExamples } from '../rule.ts'

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: () => {} },
    {
      title: 'called otherwise',
      change: ({ item }) => {
        const table = item('tide-table')
        if (table.file) table.file = { ...table.file, name: 'Tides of the term.pdf' }
      },
    },
    {
      title: 'a form that was filled in',
      change: ({ item }) => {
        item('passage-form').file = { name: 'form.pdf', content: 'b'.repeat(64) }
      },
    },
    {
      title: 'none at all, which is told by itself',
      change: ({ item }) => void (item('tide-table').file = null),
    },
  ],
  fails: [
    {
      title: 'one that is kept from students, whose name is told nowhere',
      change: ({ item, course }) => {
        const file = { name: 'extra time.pdf', content: 'e'.repeat(64) }
        item('tide-table').file = file
        course.files = [{ ...file, id: 'f-9', url: '/files/f-9', restricted: true }]
      },
      evidence: 'a file that is kept from students',
    },
    {
      title: 'the one of last year',
      change: ({ item }) => {
        item('tide-table').file = { name: 'tide table.pdf', content: 'c'.repeat(64) }
      },
      evidence: '“tide table.pdf”',
    },
    {
      title: 'another kind of file',
      change: ({ item }) => {
        item('tide-table').file = { name: 'tides.xlsx', content: 'd'.repeat(64) }
      },
      evidence: '“tides.xlsx”',
    },
  ],
}
