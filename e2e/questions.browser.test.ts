import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { everyCourseItem, everyItem, type Course, type CourseItem } from '@wickerframe/core'
import type { CourseSummary, TemplateDraft } from '@wickerframe/contract'
import { openBrowser } from '@wickerframe/scripts/browser'
import { violations } from './axe.ts'
import { signInWith } from './signIn.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

const patience = { timeout: 60_000 }
let bed: TestBed
let browser: Browser
let page: Page
let platform: Page
let designer: Client
const pageErrors: string[] = []

beforeAll(async () => {
  bed = await startTestBed({ courses: 6 })
  await bed.startWorker()
  designer = await bed.as('designer@kestrelsound.example')
  browser = await openBrowser()
  page = await signInWith(browser, bed.address, 'designer@kestrelsound.example')
  page.on('pageerror', (cause) => pageErrors.push(cause.message))
  platform = await (await browser.newContext()).newPage()
})
afterAll(async () => {
  await browser?.close()
  await bed.stop()
})

const key = 'quiz-of-knots'
const draft = async () => (await designer.get<TemplateDraft>(`/api/templates/${key}`)).body
const questionsOf = async () =>
  everyItem((await draft()).draft).find(({ kind }) => kind === 'assessment')?.questions
const release = async (note: string) => {
  const { draftRevision } = await draft()
  const answer = await designer.post(`/api/templates/${key}/release`, {
    revision: draftRevision,
    note,
  })
  expect(answer.status, JSON.stringify(answer.body)).toBe(200)
}
const theCourse = async (): Promise<CourseSummary> => {
  const { body } = await designer.get<CourseSummary[]>('/api/courses')
  const course = body.find(({ classSections }) => classSections.includes('K1'))
  if (!course) throw new Error('the course was made')
  return course
}
const quizzes = async (): Promise<CourseItem[]> =>
  everyCourseItem(
    (await bed.connector(`/courses/${(await theCourse()).platformId}/snapshot`)) as Course,
  ).flatMap(({ item }) => (item.kind === 'assessment' ? [item] : []))
const asked = async (at: number): Promise<string[]> =>
  ((await quizzes())[at]?.questions ?? []).map(({ body }) => body.text.replace(/<[^>]*>/g, ''))
/** Presses beside the text itself. */
let presses = 0
const press = async (name: string) => {
  presses += 1
  await page.getByRole('button', { name, exact: true }).click()
}
const saved = (count: number) =>
  expect.poll(async () => (await questionsOf())?.list.length, patience).toBe(count)

const fiveQuestions = `1. Which knot makes a loop that does not slip? (4 points)
*a) A bowline
b) A slip knot
c) A clove hitch

2. Which of these join two lines? (4 points)
*a) A sheet bend
*b) A double fisherman’s knot
c) A cleat hitch

3. A reef knot holds two lines of different thickness. (4 points)
Answer: False

4. What is the end of a line called that is not in use? (4 points)
Answer: the bitter end / bitter end

5. Say in two sentences when you would use a rolling hitch. (4 points)`

describe('a quiz with questions', () => {
  it('of five questions is written in fewer than 12 presses', async () => {
    await page.goto(`${bed.address}/templates/new?way=sentences`)
    await page.getByLabel('It is called').fill('Quiz of knots')
    await page.getByLabel('Weeks', { exact: true }).selectOption('8')
    await page.getByRole('checkbox', { name: 'an assessment' }).check()
    await page.getByRole('button', { name: 'Make the template' }).click()
    await page.getByRole('treegrid').waitFor()
    const part = everyItem((await draft()).draft).find(({ kind }) => kind === 'assessment')
    await page.goto(`${bed.address}/templates/${key}/pages/${part?.key}`)
    await press('Take questions from a list …')
    await page.getByLabel('The list').fill(fiveQuestions)
    await press('Put in 5 questions')
    await saved(5)
    expect(presses).toBeLessThan(12)
    const { list } = (await questionsOf()) ?? { list: [] }
    expect(list.map(({ body }) => [body.kind, body.points])).toEqual([
      ['one-answer', 4],
      ['several-answers', 4],
      ['true-or-false', 4],
      ['short-answer', 4],
      ['essay', 4],
    ])
    expect(await violations(page)).toEqual([])
  })

  it('is gone on with by keyboard alone, and every key is taken back by undo', async () => {
    await page.getByRole('button', { name: 'Add a question ▾' }).focus()
    await page.keyboard.press('Enter')
    await page.getByRole('menuitem', { name: 'One answer' }).waitFor()
    await page.keyboard.press('Enter')
    await page.getByRole('textbox', { name: 'What question 6 asks' }).waitFor()
    await page.keyboard.type('Where does a sailor keep the knife?')
    await page.keyboard.press('Tab')
    await page.keyboard.type('On a lanyard')
    await page.keyboard.press('Enter')
    await page.keyboard.type('In the bunk')
    await page.keyboard.press('Enter')
    await page.keyboard.type('*In reach')
    expect(await violations(page)).toEqual([])
    await page.keyboard.press('Control+Enter')
    await page.getByRole('textbox', { name: 'What question 7 asks' }).waitFor()
    await page.keyboard.press('Escape')
    await saved(7)
    expect((await questionsOf())?.list[5]?.body).toMatchObject({
      text: '<p>Where does a sailor keep the knife?</p>',
      choices: [
        { text: 'On a lanyard', right: false },
        { text: 'In the bunk', right: false },
        { text: 'In reach', right: true },
      ],
    })
    await page.keyboard.press('Delete')
    await saved(6)
    await page.keyboard.press('Alt+ArrowUp')
    await expect
      .poll(async () => (await questionsOf())?.list[4]?.body.text, patience)
      .toBe('<p>Where does a sailor keep the knife?</p>')
    await page.keyboard.press('Control+z')
    await expect.poll(async () => (await questionsOf())?.list[4]?.body.kind, patience).toBe('essay')
  })

  it('leaves some to the instructor, and is told what they come to', async () => {
    const six = page.getByRole('group', { name: /^Question 6/ })
    await six.getByRole('button', { name: 'edit' }).click()
    await page.getByLabel('In courses it').selectOption('sample')
    await six.getByRole('button', { name: 'close' }).click()
    await six.getByText('It is a sample').waitFor()
    await page.getByRole('checkbox', { name: 'the instructor is asked to write some' }).check()
    await page.getByLabel('at least').fill('1')
    await page.getByLabel('about, for instance: your syllabus').fill('your own boat')
    await page.getByLabel('about, for instance: your syllabus').blur()
    await expect
      .poll(async () => (await questionsOf())?.asked, patience)
      .toEqual({ atLeast: 1, about: 'your own boat' })
    await page.getByText('6 questions, 21 points; at least 1 more from the instructor').waitFor()
  })

  it('is deployed, and stands on the platform', async () => {
    await release('First')
    const made = await designer.post(
      '/api/courses/made?how=each',
      'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status\nSAF 160,Knots & Lines,autumn-2026,first-half,K1,own,pilar@kestrelsound.example,Pilar Hjort,on-campus,8,teaching',
      { 'content-type': 'text/csv' },
    )
    expect(made.status).toBe(200)
    const { id } = await theCourse()
    await page.goto(`${bed.address}/rollouts/new?template=${key}&courses=${id}`)
    await page.getByRole('button', { name: 'Make the plan' }).click()
    await page.getByRole('button', { name: 'Approve and run 1 course' }).click()
    await page.getByText(/^1 of 1 course: 1 done/).waitFor()
    expect(await asked(0)).toHaveLength(6)
    const part = everyItem((await draft()).draft).find(({ kind }) => kind === 'assessment')
    await page.goto(`${bed.address}/templates/${key}/pages/${part?.key}?course=${id}`)
    await page.getByRole('button', { name: 'As the instructor' }).click()
    await page.getByText('A sample: put one of yours in its place.').waitFor()
    await page.getByRole('button', { name: 'As students' }).click()
    await page.getByText('A bowline').waitFor()
    expect(await page.getByText('right', { exact: true }).count()).toBe(0)
    expect(await page.getByText('the bitter end').count()).toBe(0)
    const [first] = await quizzes()
    await platform.goto(
      `${bed.platformAddress}/courses/${(await theCourse()).platformId}/items/${first?.id}`,
    )
    await platform.getByText('Which knot makes a loop that does not slip?').waitFor()
    expect(await platform.getByText('double fisherman').count()).toBe(1)
  })

  it('is written on by its instructor, and the check tells what is still a sample', async () => {
    await platform.getByRole('button', { name: 'take it out' }).nth(5).click()
    await platform
      .getByLabel(/^More questions/)
      .fill('1. What is our boat called?\n*a) Gannet\nb) Tern')
    await platform.getByRole('button', { name: 'add them' }).click()
    await platform.getByText('What is our boat called?').waitFor()
    // Fixed, and worded otherwise all the same.
    await platform
      .getByLabel('Ask instead of question 3', { exact: true })
      .fill('A reef knot joins a rope and a thread.')
    await platform.getByRole('button', { name: 'ask it so' }).nth(2).click()
    await platform.getByText('A reef knot joins a rope and a thread.').waitFor()
    const { id } = await theCourse()
    await page.goto(`${bed.address}/courses/${id}`)
    await page.getByRole('button', { name: 'Read again' }).click()
    const told = async () => (await page.getByRole('main').innerText()).replaceAll(/\s+/g, ' ')
    await expect
      .poll(told, patience)
      .toContain('no longer asks “A reef knot holds two lines of different …”')
    // It gave way in the first quiz; in the others it still stands.
    expect(await told()).toContain(
      'still asks the sample question “Where does a sailor keep the knife?”',
    )
  })

  it('takes a new version: what is theirs stays, and a clash is decided on', async () => {
    const part = everyItem((await draft()).draft).find(({ kind }) => kind === 'assessment')
    const list = (await questionsOf())?.list ?? []
    const edit = (question: (typeof list)[number], text: string) => ({
      edit: 'set-field',
      part: part?.key,
      field: ['questions', 'list', question.key],
      was: question,
      value: { ...question, body: { ...question.body, text: `<p>${text}</p>` } },
    })
    const answer = await designer.post(`/api/templates/${key}/edits`, {
      revision: (await draft()).draftRevision,
      edits: [
        ...list.slice(0, 1).map((question) => edit(question, 'Which knot makes a firm loop?')),
        ...list.slice(2, 3).map((question) => edit(question, 'A reef knot is for reefing.')),
      ],
    })
    expect(answer.status, JSON.stringify(answer.body)).toBe(200)
    await release('Second')
    const { id } = await theCourse()
    await page.goto(`${bed.address}/rollouts/new?template=${key}&courses=${id}`)
    await page.getByRole('button', { name: 'Make the plan' }).click()
    await page.getByRole('button', { name: /^Approve and run/ }).waitFor()
    await page.getByRole('button', { name: /^Approve and run/ }).click()
    await page.getByText(/^1 of 1 course: 1 done/).waitFor()
    expect(await asked(0)).toEqual([
      'Which knot makes a firm loop?',
      'Which of these join two lines?',
      'A reef knot joins a rope and a thread.',
      'What is the end of a line called that is not in use?',
      'Say in two sentences when you would use a rolling hitch.',
      'What is our boat called?',
    ])
    expect((await asked(1))[2]).toBe('A reef knot is for reefing.')
  })

  it('is told by a platform that tells no questions: nothing is taken for none', async () => {
    await bed.misbehave('hide-questions', 1)
    const { id } = await theCourse()
    await page.goto(`${bed.address}/courses/${id}`)
    await page.getByRole('button', { name: 'Read again' }).click()
    await expect
      .poll(async () => JSON.stringify((await designer.get(`/api/courses/${id}`)).body), patience)
      .toContain('the platform does not tell its questions')
    await bed.misbehave('hide-questions', 0)
  })

  it('shows no page error on the way', () => {
    expect(pageErrors).toEqual([])
  })
})
