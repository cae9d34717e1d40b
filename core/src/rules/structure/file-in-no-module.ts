import { z } from 'zod'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const fileInNoModule = defineRule({
  id: 'file-in-no-module',
  group: 'structure',
  title: 'Uploaded files can be found',
  why: 'A file that no module holds and no page links is not seen by students, though the instructor believes it is.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { unseen: 'The file “{name}” stands in no module and no page links it.' },
  *check(context): Generator<Verdict> {
    if ((context.course.files ?? []).length === 0) return
    const plain = (address: string) => address.trim().replace(/[?#].*$/, '')
    const shown = new Set([
      ...context.placedItems.flatMap(({ item }) =>
        [item.url, item.target].flatMap((url) => (url === null ? [] : [plain(url)])),
      ),
      ...context.placedItems.flatMap(({ item }) => {
        const page = context.pageOf(item)
        return page
          ? [
              ...page.links.map((link) => plain(link.href)),
              ...page.images.map((image) => plain(image.source)),
              ...page.media.map((one) => plain(one.source)),
            ]
          : []
      }),
    ])
    for (const file of context.course.files ?? []) {
      // What is kept from students is to be out of sight, and its name is not told.
      if (file.restricted) continue
      const told = { subject: aboutCourse, discriminator: `file:${file.id}` } as const
      if (shown.has(plain(file.url))) yield { ...told, outcome: 'passed' }
      else
        yield {
          ...told,
          outcome: 'failed',
          message: 'unseen',
          values: { name: file.name },
          evidence: [{ kind: 'words', text: file.name }],
          expected: 'a module that holds it, or a page that links it',
          together: 'unseen-files',
        }
    }
  },
  examples: {
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
  },
})
