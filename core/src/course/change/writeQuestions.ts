import type { CourseItem } from '../course.ts'
import { mostQuestions, type CourseQuestion, type QuestionsWritten } from '../courseQuestion.ts'
import type { ChangeRefusal, ChangeSite } from './site.ts'

/** Writes the questions of an item. @returns why they cannot be, or null once they are */
export const writeQuestions = (
  item: CourseItem,
  { order, remove }: QuestionsWritten,
  site: ChangeSite,
): ChangeRefusal | null => {
  if (item.studentWork)
    return {
      code: 'student-work',
      message: `students have work in “${item.name}”, so its questions stay as they are`,
    }
  const there = new Map((item.questions ?? []).map((question) => [question.id, question]))
  const gone = [...order.flatMap((one) => ('id' in one ? [one.id] : [])), ...remove].find(
    (id) => !there.has(id),
  )
  if (gone !== undefined)
    return { code: 'gone', message: `there is no question ${gone} in “${item.name}”` }
  const written = (question: CourseQuestion): CourseQuestion => {
    site.writtenQuestions.push({ question, of: item.name })
    return question
  }
  const questions = order.map((one): CourseQuestion => {
    if ('clientId' in one)
      return written({ id: site.mint(one.clientId, 'question'), body: structuredClone(one.body) })
    const stands = there.get(one.id)
    if (!stands) throw new Error(`question ${one.id} was there a moment ago`)
    there.delete(one.id)
    return 'body' in one ? written({ ...stands, body: structuredClone(one.body) }) : stands
  })
  for (const id of remove) there.delete(id)
  const all = [...questions, ...there.values()]
  if (all.length > mostQuestions)
    return {
      code: 'too-many',
      message: `“${item.name}” would hold ${all.length} questions; at most ${mostQuestions} fit`,
    }
  item.questions = all
  return null
}
