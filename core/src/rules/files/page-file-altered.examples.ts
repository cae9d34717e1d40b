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

/** The tide table is kept current by the library, and the page leads there. */
const keptCurrent =
  (key = 'tides') =>
  (shown: ExampleCourse): void => {
    shown.template.files = shown.template.files.map((file) =>
      file.key === 'tides' ? { ...file, current: true as const } : file,
    )
    leading(
      `<a href="https://wickerframe.example/house-files/${key}">Tide table of the harbour (PDF)</a>`,
    )(shown)
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
    { title: 'led to what the library keeps current', change: keptCurrent() },
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
      title: 'led to one that is kept from students, whose name is told nowhere',
      change: (shown) => {
        leading(`<a href="${last}">${words}</a>`)(shown)
        const [, old] = shown.course.files ?? []
        if (old) old.restricted = true
      },
      evidence: 'a file that is kept from students',
    },
    {
      title: 'led to another place',
      change: leading(`<a href="https://tides.example/">${words}</a>`),
      evidence: 'https://tides.example/',
    },
    {
      title: 'led to another that the library keeps',
      change: keptCurrent('charts'),
      evidence: 'https://wickerframe.example/house-files/charts',
    },
    { title: 'no link any more', change: leading(words), evidence: words },
  ],
}
