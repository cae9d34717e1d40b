import type { ExampleCourse, RuleExamples } from '../rule.ts'

const words = 'Tide table of the harbour (PDF, 20 kB)'
const given = '1'.repeat(64)
const address = `/courses/example/files/${given}/tide%20table.pdf`
const last = '/courses/example/files/tides-of-last-year.pdf'

/** The platform tells the files that the course holds, the one of last year among them. */
const told = ({ course }: ExampleCourse): void => {
  const file = { restricted: false } as const
  course.files = [
    { ...file, id: 'f-1', name: 'tide table.pdf', url: address, content: given },
    { ...file, id: 'f-2', name: 'tides of last year.pdf', url: last, content: '9'.repeat(64) },
  ]
}
/** A page in which the link to the file stands otherwise. */
const leading =
  (to: string) =>
  (shown: ExampleCourse): void => {
    told(shown)
    const page = shown.item('syllabus')
    page.html = (page.html ?? '').replace(`<a href="${address}">${words}</a>`, to)
  }

export const examples: RuleExamples = {
  passes: [
    { title: 'as deployed', change: told },
    {
      title: 'led to the same file at another address',
      change: (shown) => {
        leading(`<a href="/courses/example/files/copy">${words}</a>`)(shown)
        shown.course.files?.push({
          id: 'f-3',
          name: 'copy of tide table.pdf',
          url: '/courses/example/files/copy',
          restricted: false,
          content: given,
        })
      },
    },
    { title: 'taken out with its words, which is told by itself', change: leading('') },
    {
      title: 'led to what is gone, which is told by itself',
      change: leading(`<a href="/courses/example/files/gone.pdf">${words}</a>`),
    },
  ],
  fails: [
    {
      title: 'led to the one of last year',
      change: leading(`<a href="${last}">${words}</a>`),
      evidence: '“tides of last year.pdf”',
    },
    {
      title: 'led to another place',
      change: leading(`<a href="https://tides.example/">${words}</a>`),
      evidence: 'https://tides.example/',
    },
    { title: 'no link any more', change: leading(words), evidence: words },
  ],
}
