import { z } from 'zod'
import { withoutQuery } from '../../document/index.ts'
import { aboutCourse, defineRule, type Verdict } from '../rule.ts'

export const fileInNoModule = defineRule({
  id: 'file-in-no-module',
  group: 'structure',
  title: 'Uploaded files can be found',
  why: 'A file that no module holds and no page links is not seen by students, though the instructor believes it is.',
  untold: 'Files that are kept from students: their names are not told.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: { unseen: 'The file “{name}” stands in no module and no page links it.' },
  *check(context): Generator<Verdict> {
    if ((context.course.files ?? []).length === 0) return
    const plain = (address: string) => withoutQuery(address.trim())
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
              ...page.media.map(({ source }) => plain(source)),
            ]
          : []
      }),
    ])
    const contents = new Set(context.placedItems.map(({ item }) => item.file?.content))
    for (const file of context.course.files ?? []) {
      // What is kept from students is to be out of sight, and its name is not told.
      if (file.restricted) continue
      const told = { subject: aboutCourse, discriminator: `file:${file.id}` } as const
      if (shown.has(plain(file.url)) || (file.content && contents.has(file.content)))
        yield { ...told, outcome: 'passed' }
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
})
