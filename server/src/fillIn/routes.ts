import { askedInCourse, ownWords, refusedInDrawing } from '@wickerframe/core'
import type { fillInRoutes } from '@wickerframe/contract'
import { checkInputs } from '../checks/checkStored.ts'
import { courseIn } from '../courses/routes.ts'
import type { HandlersOf } from '../http/handler.ts'
import { HttpProblem } from '../http/problem.ts'
import { askedRun } from '../runs/askedRun.ts'
import { keepHandout } from '../files/keepHandout.ts'
import { answerFilesOfDay, isAnswerFile, noteAnswerFile } from './answerFiles.ts'

/** How many files may be put in as answers in one course within a day. */
const mostFilesOfDay = 40

/** Where a page stands on the platform; null where it does not say, or says what no browser should follow. */
const addressOn = (platformUrl: string, url: string | null): string | null => {
  if (url === null || !URL.canParse(url, platformUrl)) return null
  const { protocol, href } = new URL(url, platformUrl)
  return protocol === 'https:' || protocol === 'http:' ? href : null
}

export const fillInHandlers: HandlersOf<typeof fillInRoutes> = {
  askedOfCourse: async (handling) => {
    const { pool, today, platformUrl } = handling
    const stored = await courseIn(handling)
    const inputs = await checkInputs(pool, stored, today, today)
    if (!inputs)
      return {
        pages: [],
        unread: [],
        notChecked: stored.templateId === null ? 'no-template' : 'never-read',
      }
    const asked = askedInCourse(inputs)
    if (!asked.ok)
      throw new HttpProblem(
        409,
        'not-expected',
        `what it should be cannot be worked out: at ${asked.problems[0]?.path}, found ${asked.problems[0]?.found}; expected ${asked.problems[0]?.expected}`,
      )
    const { pages, unread } = asked.value
    return {
      pages: pages.map((page) => ({ ...page, url: addressOn(platformUrl, page.url) })),
      unread,
      notChecked: null,
    }
  },
  putAnswerFile: async (handling) => {
    const { pool, query } = handling
    const { id } = (await courseIn({ ...handling, query: {} })).summary
    if ((await answerFilesOfDay(pool, id)) >= mostFilesOfDay)
      throw new HttpProblem(
        429,
        'too-many-files',
        `${mostFilesOfDay} files were put in here within a day; go on tomorrow, or put it in on the platform`,
        {},
        3600,
      )
    const { file, isNew } = await keepHandout(handling, query.name)
    const { fileName, content, bytes } = file
    await noteAnswerFile(pool, id, { name: fileName, content }, isNew)
    return { fileName, content, bytes }
  },
  answerCourse: async (handling) => {
    const { pool, person, body } = handling
    const stored = await courseIn(handling)
    const { answers } = body
    for (const { says, html, picture, file } of answers) {
      if (file && !(await isAnswerFile(pool, stored.summary.id, file)))
        throw new HttpProblem(
          400,
          'unusable-input',
          `“${file.name}” was not put in for this course, or is not kept any more; put it in again`,
        )
      const [refused] = [...ownWords(html).refused, ...refusedInDrawing(picture?.svg ?? '')]
      if (refused !== undefined)
        throw new HttpProblem(
          400,
          'unusable-input',
          `the answer to “${says.slice(0, 80)}” holds ${refused}, which is not let into a course; take it out`,
        )
    }
    return {
      run: await askedRun(
        { pool },
        {
          kind: 'answers',
          state: 'running',
          title: `${answers.length} ${answers.length === 1 ? 'answer' : 'answers'} in ${stored.summary.code} ${stored.summary.title}`,
          by: person.email,
          asOf: null,
          templateId: null,
          version: null,
          tasks: [{ courseId: stored.summary.id, proposal: answers }],
        },
      ),
    }
  },
}
