import { everyCourseItem, type Course } from '../course/index.ts'

/** What the example asks in its weeks. */
export const weekPrompt = 'In two or three sentences, say what this week is about.'

/** Takes a course of the example back to before its weeks were filled in. */
export const askAgain = (course: Course): void => {
  for (const { item } of everyCourseItem(course))
    item.html =
      item.html?.replace(
        /(<div data-wicker-block="about"[^>]*>).*?(<\/div>)/s,
        `$1<p>${weekPrompt}</p>$2`,
      ) ?? null
}
