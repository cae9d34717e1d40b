import { z } from 'zod'
import { restrictedFiles } from '../../course/index.ts'
import { aboutCourse, aboutFound, defineRule, type Verdict } from '../rule.ts'

export const restrictedFileExposed = defineRule({
  id: 'restricted-file-exposed',
  group: 'visibility',
  title: 'Files kept from students cannot be reached by them',
  why: 'A list of accommodations or a grade sheet is linked from a page that the whole class reads.',
  untold: 'The name of the file: it may itself say something about a student.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  // The name of such a file may itself say something about a student: it never leaves the course.
  messages: {
    linked: '“{where}” leads students to a file that is kept from them.',
    shown: 'In “{where}” students see a file that is kept from them.',
  },
  *check(context): Generator<Verdict> {
    const restricted = restrictedFiles(context.course)
    if (!restricted.any) return
    const exposed = (where: string, message: 'linked' | 'shown') =>
      ({
        outcome: 'failed',
        message,
        values: { where },
        evidence: [{ kind: 'value', text: 'a file kept from students (its name is not told)' }],
        expected: 'no way to it for students',
        together: 'restricted-files',
      }) as const
    for (const placed of context.placedItems) {
      const { item, module } = placed
      const page = context.pageOf(item)
      const shows = restricted.shownBy(item)
      const links = page?.links.some((link) => restricted.at(link.href)) ?? false
      if (!shows && !links) continue
      const about = shows
        ? { subject: aboutCourse, discriminator: item.id }
        : { subject: aboutFound(context, item) }
      if (!context.studentsReach(placed)) yield { ...about, outcome: 'passed' }
      else
        yield {
          ...about,
          ...exposed(
            shows ? (module?.name ?? 'the course') : item.name,
            shows ? 'shown' : 'linked',
          ),
          itemId: shows ? module?.id : item.id,
        }
    }
  },
})
