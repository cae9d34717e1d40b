import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { emptyBase, everyCourseItem, type Answer, type CourseItem } from '@wickerframe/core'
import type { AskedOfCourse } from '@wickerframe/contract'
import { askAgain, weekPrompt } from '@wickerframe/core/testing'
import { storeBase } from '../rollouts/bases.ts'
import { startCheckedCollege, type CheckedCollege } from '../testing/privateCollege.testing.ts'

let college: CheckedCollege
beforeAll(async () => {
  college = await startCheckedCollege()
})
afterAll(() => college.stop())

beforeEach(() => college.readWith(askAgain))

const asked = async (client = college.people.instructor): Promise<AskedOfCourse> =>
  (await client.get(`${college.about}/asked`)).body
const places = async () =>
  (await asked()).pages.flatMap(({ item, things }) =>
    things.flatMap(({ block, pieces }) =>
      pieces.map(({ says, nth }) => ({ item, block, says, nth })),
    ),
  )
const itemOf = (id: string): CourseItem => {
  const course = college.platform.courses.get('example')
  const found = course && everyCourseItem(course).find(({ item }) => item.id === id)
  if (!found) throw new Error(`the platform has ${id}`)
  return found.item
}
const answer = async (html: string, at = 0): Promise<Answer> => {
  const place = (await places())[at]
  if (!place) throw new Error('something is asked')
  return { ...place, html }
}
const send = (answers: Answer[], client = college.people.instructor) =>
  client.post(`${college.about}/answers`, { answers })
const pdf = readFileSync(
  new URL('../../../interchange/src/files/samples/form.pdf', import.meta.url),
)
const putFile = (bytes: Uint8Array, name: string, client = college.people.instructor) =>
  client.send(
    `${college.about}/answer-files?name=${encodeURIComponent(name)}`,
    bytes,
    'application/octet-stream',
  )
const messageOf = async (run: number): Promise<string> =>
  (await college.people.designer.get(`/api/runs/${run}`)).body.tasks[0].message

describe('what the pages of a course ask', () => {
  it('is told to who looks after it, page by page, and to nobody else', async () => {
    const { pages, notChecked } = await asked()
    expect(notChecked).toBeNull()
    expect(pages.length).toBeGreaterThan(0)
    expect(pages[0]?.things[0]?.pieces[0]?.says).toBe(weekPrompt)
    expect(pages[0]?.url).toMatch(/^https?:\/\//)
    expect(await asked(college.people.designer)).toEqual({ pages, unread: [], notChecked })
    const stranger = await college.as(await college.person('instructor', 'stranger'))
    expect((await stranger.get(`${college.about}/asked`)).status).toBe(404)
    expect((await college.people.reviewer.get(`${college.about}/asked`)).status).toBe(403)
  })
  it('leads to no address that a browser should not follow', async () => {
    await college.readWith((course) => {
      askAgain(course)
      for (const { item } of everyCourseItem(course)) item.url = 'javascript:alert(1)'
    })
    expect((await asked()).pages.map(({ url }) => url)).toContain(null)
    expect(JSON.stringify(await asked())).not.toContain('javascript')
  })
  it('is answered here, on the platform at once, and told no more', async () => {
    const before = await places()
    const one = await answer('<p>We learn to read the <strong>tide</strong>.</p>')
    const { body } = await send([one])
    await college.work()
    expect(await messageOf(body.run)).toMatch(/^1 written/)
    expect(itemOf(one.item).html).toContain('We learn to read the <strong>tide</strong>.')
    expect(itemOf(one.item).html).not.toContain(one.says)
    expect(await places()).toEqual(before.slice(1))
  })
  it('may be a picture, which is on the platform before the page shows it', async () => {
    const one = await answer('')
    const picture = {
      key: 'own',
      fileName: 'me.svg',
      svg: '<svg viewBox="0 0 1 1"></svg>',
      alternativeText: 'Me at the wheel',
      licence: 'mine',
    }
    college.platform.instead('putAsset', {
      state: 'refused',
      status: 413,
      code: 'too-large',
      detail: 'it is too large',
    })
    const { body } = await send([{ ...one, picture }])
    await college.work()
    expect(await messageOf(body.run)).toContain('refused the image me.svg: it is too large')
    expect(itemOf(one.item).html).toContain(one.says)
    await send([{ ...one, picture }])
    await college.work()
    expect(itemOf(one.item).html).toMatch(
      /<img src="asset:me-[0-9a-f]+\.svg" alt="Me at the wheel">/,
    )
  })
  it('may be a file, which is on the platform before the page leads to it', async () => {
    const one = await answer('')
    const file = await putFile(pdf, 'Course plan.pdf')
    expect(file).toMatchObject({ status: 200, body: { bytes: pdf.length } })
    const { fileName: name, content } = file.body
    await send([{ ...one, file: { name, content } }])
    await college.work()
    const { html } = itemOf(one.item)
    expect(html).toMatch(/<a href="[^"]*Course%20plan\.pdf[^"]*">Course plan\.pdf<\/a>/)
    expect(college.platform.contents.get(content)?.equals(pdf)).toBe(true)
  })
  it('is no file that was put in elsewhere, under another name, or that is not what it is called', async () => {
    const one = await answer('')
    const kept = (await putFile(pdf, 'plan.pdf')).body
    const given = (name: string, content: string) => send([{ ...one, file: { name, content } }])
    for (const refused of [
      await given('plan.html', kept.content),
      await given('plan.docx', kept.content),
      await given('plan.pdf', 'ab'.repeat(32)),
    ])
      expect([refused.status, refused.body.detail]).toEqual([
        400,
        expect.stringContaining('was not put in for this course'),
      ])
    expect((await putFile(pdf, 'plan.docx')).status).toBe(400)
    expect((await putFile(pdf, 'plan.exe')).status).toBe(400)
    expect((await putFile(pdf, 'plan.pdf', college.people.reviewer)).status).toBe(403)
    const stranger = await college.as(await college.person('instructor', 'third'))
    expect((await putFile(pdf, 'plan.pdf', stranger)).status).toBe(404)
  })
  it('are not too many files a day', async () => {
    const { id } = await college.detail()
    await college.rows(
      `INSERT INTO answer_files (course_id, content, file_name, for_answers_only, put_at)
       SELECT ?, CONCAT(REPEAT('0', 62), LPAD(seq, 2, '0')), 'a.pdf', 0, NOW(3)
       FROM seq_1_to_40`,
      [id],
    )
    const { status, body } = await putFile(pdf, 'one more.pdf')
    expect([status, body.detail]).toEqual([429, expect.stringContaining('within a day')])
    await college.rows(
      `DELETE FROM answer_files
       WHERE content LIKE '000%'`,
    )
  })
  it('counts as an edit of theirs, though it was written by us', async () => {
    const { id } = await college.detail()
    await storeBase(college.pool, id, emptyBase())
    const edits = async () =>
      Number(
        (
          await college.rows<{ edits: number | null }>(
            `SELECT SUM(edits) AS edits
             FROM course_edits`,
          )
        )[0]?.edits ?? 0,
      )
    const before = await edits()
    await send([await answer('<p>Mine, and counted.</p>')])
    await college.work()
    expect(await edits()).toBeGreaterThan(before)
  })
  it('is left where somebody answered meanwhile, and nothing of theirs is touched', async () => {
    const one = await answer('<p>Mine.</p>')
    const item = itemOf(one.item)
    const course = college.platform.courses.get('example')
    item.html = (item.html ?? '').replace(one.says, 'Theirs, written on the platform.')
    if (course) course.revision = 'edited'
    const theirs = item.html
    const { body } = await send([one])
    await college.work()
    expect(await messageOf(body.run)).toMatch(/nothing was written; 1 not written/)
    expect(itemOf(one.item).html).toBe(theirs)
  })
  it('takes nothing that runs, says whose answer holds it, and begins nothing', async () => {
    const one = await answer('<p>a</p><script>alert(1)</script>')
    const refused = await send([one])
    expect([refused.status, refused.body.detail]).toEqual([
      400,
      expect.stringContaining('which is not let into a course'),
    ])
    const inside = await send([{ ...one, html: '<p><a href="ref:welcome">a</a></p>' }])
    expect([inside.status, inside.body.detail]).toEqual([
      400,
      expect.stringContaining('the address “ref:welcome”'),
    ])
    const drawn = await send([
      {
        ...one,
        html: '',
        picture: {
          key: 'own',
          fileName: 'me.svg',
          svg: '<svg><script>1</script></svg>',
          alternativeText: 'Me',
          licence: 'mine',
        },
      },
    ])
    expect(drawn.status).toBe(400)
    expect((await send([])).status).toBe(400)
    expect((await send([{ ...one, html: 'a' }], college.people.reviewer)).status).toBe(403)
    const stranger = await college.as(await college.person('instructor', 'another'))
    expect((await send([{ ...one, html: 'a' }], stranger)).status).toBe(404)
  })
  it('is written once, though the platform’s answer is lost', async () => {
    const one = await answer('<p>Once and no more.</p>')
    college.platform.loseAnswers(1)
    await send([one])
    await college.work()
    await college.work()
    expect(itemOf(one.item).html?.split('Once and no more.')).toHaveLength(2)
  })
})
