import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  everyCourseItem,
  everyItem,
  homePageKey,
  type Course,
  type CourseItem,
} from '@wickerframe/core'
import type { CourseDetail, CourseSummary, TemplateDraft } from '@wickerframe/contract'
import { openBrowser } from '@wickerframe/scripts/browser'
import { violations } from './axe.ts'
import { signInWith } from './signIn.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

const patience = { timeout: 60_000 }
const demoFolder = fileURLToPath(new URL('../demo/files/', import.meta.url))
const bytesOf = (name: string): Buffer => readFileSync(demoFolder + name)
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

const key = 'knots-with-files'
const draft = async () => (await designer.get<TemplateDraft>(`/api/templates/${key}`)).body
const fileParts = async () => everyItem((await draft()).draft).filter(({ kind }) => kind === 'file')
const theCourse = async (): Promise<CourseSummary> => {
  const { body } = await designer.get<CourseSummary[]>('/api/courses')
  const course = body.find(({ classSections }) => classSections.includes('K2'))
  if (!course) throw new Error('the course was made')
  return course
}
const shown = async (name: string): Promise<CourseItem> => {
  const found = everyCourseItem(
    (await bed.connector(`/courses/${(await theCourse()).platformId}/snapshot`)) as Course,
  ).find(({ item }) => item.name === name)?.item
  if (!found) throw new Error(`no ${name}`)
  return found
}
/** What the check tells of files, once it says something else than before. */
const told = async (): Promise<string[]> => {
  const { body } = await designer.get<CourseDetail>(`/api/courses/${(await theCourse()).id}`)
  return (body.result?.findings ?? [])
    .filter(({ rule }) => /^(?:file-|fixed-file|form-|page-file)/.test(rule))
    .map(({ rule }) => rule)
}
/** Files of the college as a pointer carries them over the page. */
const carrying = (names: readonly string[]) =>
  page.evaluateHandle(
    (held) => {
      const transfer = new DataTransfer()
      for (const { name, base64 } of held)
        transfer.items.add(
          new File([Uint8Array.from(atob(base64), (letter) => letter.charCodeAt(0))], name),
        )
      return transfer
    },
    names.map((name) => ({ name, base64: bytesOf(name).toString('base64') })),
  )
let presses = 0

describe('files for all courses', () => {
  it('become parts where they are dropped on the outline', async () => {
    await page.goto(`${bed.address}/templates/new?way=sentences`)
    await page.getByLabel('It is called').fill('Knots with files')
    await page.getByLabel('Weeks', { exact: true }).selectOption('8')
    await page.getByRole('button', { name: 'Make the template' }).click()
    await page.getByRole('treegrid').waitFor()
    const carried = await carrying(['syllabus-form.docx', 'study-planner.xlsx'])
    // Upon the home page: outside every module, so that there is one of each.
    const row = page.getByRole('row').nth(1)
    const box = await row.boundingBox()
    await row.dispatchEvent('drop', {
      dataTransfer: carried,
      clientX: (box?.x ?? 0) + 60,
      clientY: (box?.y ?? 0) + 12,
    })
    await page.getByText('2 files became parts.').waitFor()
    await page.getByText(/syllabus-form.docx” is filled for each course: \{code\}/).waitFor()
    await expect.poll(async () => (await fileParts()).length, patience).toBe(2)
    expect((await draft()).draft.files.map(({ content }) => content)).toEqual(
      ['syllabus-form.docx', 'study-planner.xlsx'].map((name) =>
        createHash('sha256').update(bytesOf(name)).digest('hex'),
      ),
    )
  })

  it('one for all courses takes fewer than 12 presses, and a form is said to be one', async () => {
    const [form] = await fileParts()
    await page.goto(`${bed.address}/templates/${key}/pages/${form?.key}`)
    await page.getByLabel('It is').selectOption('theirs')
    presses += 1
    await expect.poll(async () => (await fileParts())[0]?.file?.left, patience).toBe('theirs')
    await page
      .getByLabel('A file for this part')
      .setInputFiles({ name: 'broken.docx', mimeType: '', buffer: Buffer.from('no document') })
    presses += 1
    await page.getByText('“broken.docx” was not put in: it is no office document').waitFor()
    await page.getByLabel('A file for this part').setInputFiles(`${demoFolder}syllabus-form.docx`)
    presses += 1
    await page.getByText(/is filled for each course/).waitFor()
    expect(presses).toBeLessThan(12)
    expect((await draft()).draft.files).toHaveLength(2)
    expect(await violations(page)).toEqual([])
    await page.goto(`${bed.address}/templates/${key}?view=shared`)
    await page.getByRole('heading', { name: 'Files', exact: true }).waitFor()
    expect(await violations(page)).toEqual([])
  })

  it('are dropped on a page, and it leads to them: a document in each of its formats', async () => {
    await page.goto(`${bed.address}/templates/${key}/pages/${homePageKey}`)
    const carried = await carrying(['study-planner.xlsx', 'study-planner.pdf'])
    await page
      .getByRole('list', { name: 'The page' })
      .dispatchEvent('drop', { dataTransfer: carried })
    await page.getByText(/^study planner \(XLSX, 5 kB\) · study planner \(PDF, 18 kB\)$/).waitFor()
    await expect.poll(async () => (await draft()).draft.files.length, patience).toBe(3)
    expect((await draft()).draft.home.blocks.at(-1)).toMatchObject({
      kind: 'document',
      files: ['study-planner', 'study-planner-2'],
    })
    // Into a text that is being written: the page takes it all the same.
    await page.getByRole('button', { name: 'fixed text', exact: true }).click()
    const text = page.getByRole('textbox', { name: 'Fixed text' })
    await text.pressSequentially('Print the ')
    await text.dispatchEvent('drop', { dataTransfer: await carrying(['study-planner.pdf']) })
    await expect
      .poll(
        async () =>
          (await draft()).draft.home.blocks.filter(({ kind }) => kind === 'document').length,
        patience,
      )
      .toBe(2)
    await page.keyboard.press('Delete')
    await expect
      .poll(
        async () =>
          (await draft()).draft.home.blocks.filter(({ kind }) => kind === 'document').length,
        patience,
      )
      .toBe(1)
    expect(await violations(page)).toEqual([])
  })

  it('are led to from a sentence, found by their names', async () => {
    await page.goto(`${bed.address}/templates/${key}/pages/${homePageKey}`)
    await page.getByText('Print the', { exact: false }).last().click()
    await page.keyboard.press('Enter')
    const text = page.getByRole('textbox', { name: 'Fixed text' })
    await text.waitFor()
    await page.keyboard.press('End')
    await page.getByRole('button', { name: 'link', exact: true }).click()
    await page.getByRole('combobox', { name: /^Leads to/ }).fill('study planner')
    await page.getByRole('option', { name: 'study planner (file)' }).first().click()
    await page.keyboard.press('Escape')
    await expect
      .poll(async () => JSON.stringify((await draft()).draft.home.blocks), patience)
      .toContain('href=\\"handout:study-planner\\"')
  })

  it('are deployed, the form with its course in it, and students can save them', async () => {
    const { draftRevision } = await draft()
    const released = await designer.post(`/api/templates/${key}/release`, {
      revision: draftRevision,
      note: 'First',
    })
    expect(released.status, JSON.stringify(released.body)).toBe(200)
    const made = await designer.post(
      '/api/courses/made?how=each',
      'code,title,term,session,class section,own or shared,instructor e-mail,instructor name,modality,weeks,status\nSAF 160,Knots & Lines,autumn-2026,first-half,K2,own,pilar@kestrelsound.example,Pilar Hjort,on-campus,8,teaching',
      { 'content-type': 'text/csv' },
    )
    expect(made.status).toBe(200)
    const { id, platformId } = await theCourse()
    await page.goto(`${bed.address}/rollouts/new?template=${key}&courses=${id}`)
    await page.getByRole('button', { name: 'Make the plan' }).click()
    await page.getByRole('button', { name: 'Approve and run 1 course' }).click()
    await page.getByText(/^1 of 1 course: 1 done/).waitFor()
    const { file } = await shown('syllabus form')
    const bytes = await fetch(
      `${bed.platformAddress}/courses/${platformId}/files/${file?.content}/syllabus.docx`,
    )
    expect(
      createHash('sha256')
        .update(Buffer.from(await bytes.arrayBuffer()))
        .digest('hex'),
    ).toBe(file?.content)
    await expect.poll(told, patience).toEqual(['form-not-filled-in'])
  })

  it('that an instructor filled in is known by its words, and an empty one is told', async () => {
    const { platformId, id } = await theCourse()
    const item = await shown('syllabus form')
    await platform.goto(`${bed.platformAddress}/courses/${platformId}/items/${item.id}`)
    const save = platform.waitForEvent('download')
    await platform.getByRole('link', { name: 'syllabus-form.docx', exact: true }).click()
    expect((await save).suggestedFilename()).toBe('syllabus-form.docx')
    await platform.locator('input[type=file]').setInputFiles(`${demoFolder}syllabus-filled-in.docx`)
    await platform.getByRole('button', { name: 'put it in' }).click()
    await platform.getByRole('link', { name: 'syllabus-filled-in.docx', exact: true }).waitFor()
    await page.goto(`${bed.address}/courses/${id}`)
    await page.getByRole('button', { name: 'Read again' }).click()
    await expect.poll(told, patience).toEqual([])
    await platform.getByRole('button', { name: 'take the file out' }).click()
    await platform.getByText('It shows no file yet.').waitFor()
    await page.getByRole('button', { name: 'Read again' }).click()
    await expect.poll(told, patience).toEqual(['file-missing'])
    await page.getByRole('button', { name: /^mend: put the file in/ }).click()
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Mend / })
      .click()
    await expect
      .poll(async () => (await shown('syllabus form')).file?.name, patience)
      .toBe('syllabus-form.docx')
  })

  it('that pages lead to are saved by students; led to another file it is told, and mended', async () => {
    const { platformId, id } = await theCourse()
    const home = everyCourseItem(
      (await bed.connector(`/courses/${platformId}/snapshot`)) as Course,
    ).find(({ item }) => item.html?.includes('study planner'))?.item
    await platform.goto(`${bed.platformAddress}/courses/${platformId}/items/${home?.id}`)
    const planner = platform.getByRole('link', { name: 'study planner (PDF, 18 kB)' })
    const save = platform.waitForEvent('download')
    await planner.click()
    const saved = await (await save).createReadStream()
    const hash = createHash('sha256')
    for await (const piece of saved) hash.update(piece as Buffer)
    expect(hash.digest('hex')).toBe(
      createHash('sha256').update(bytesOf('study-planner.pdf')).digest('hex'),
    )
    const form = (await shown('syllabus form')).file
    const pdf = /href="([^"]+\.pdf)"/.exec(home?.html ?? '')?.[1] ?? ''
    const wrong = `/courses/${platformId}/files/${form?.content}/${form?.name}`
    await bed.connector(`/courses/${platformId}/change-sets`, {
      method: 'POST',
      key: 'led-elsewhere',
      body: {
        expectedRevision: ((await bed.connector(`/courses/${platformId}/snapshot`)) as Course)
          .revision,
        changes: [
          { change: 'set-item', id: home?.id, fields: { html: home?.html?.replace(pdf, wrong) } },
        ],
      },
    })
    await page.goto(`${bed.address}/courses/${id}`)
    await page.getByRole('button', { name: 'Read again' }).click()
    await expect.poll(told, patience).toContain('page-file-altered')
    await page.getByText(/leads to “syllabus-form.docx”, not to the file of the template/).waitFor()
    await page.getByRole('button', { name: /^mend: put the text right/ }).click()
    await page
      .getByRole('dialog')
      .getByRole('button', { name: /^Mend / })
      .click()
    await expect.poll(told, patience).not.toContain('page-file-altered')
    await platform.reload()
    expect(await planner.getAttribute('href')).toBe(pdf)
  })

  it('are told by a platform that does not say which it shows: nothing is taken for none', async () => {
    await bed.misbehave('hide-files', 1)
    const { id } = await theCourse()
    await page.goto(`${bed.address}/courses/${id}`)
    await page.getByRole('button', { name: 'Read again' }).click()
    await expect
      .poll(async () => JSON.stringify((await designer.get(`/api/courses/${id}`)).body), patience)
      .toContain('the platform does not tell which file it shows')
    await bed.misbehave('hide-files', 0)
  })

  it('shows no page error on the way', () => {
    expect(pageErrors).toEqual([])
  })
})
