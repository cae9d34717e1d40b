import { createHash, randomBytes } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { get } from 'node:http'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { KeptFile } from '@wickerframe/contract'
import {
  everyCourseItem,
  fileAmong,
  isModule,
  mostFileBytes,
  newItem,
  type Course,
  type CourseItem,
  type Item,
  type Template,
} from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { fillDocument } from '@wickerframe/interchange'
import {
  bytesKept,
  contentPieces,
  contentWhole,
  forgetUnfinished,
  keepContent,
} from '@wickerframe/storage'
import type { Person } from '../people/people.ts'
import { forgetAnswerFiles, noteAnswerFile } from '../fillIn/answerFiles.ts'
import {
  startPrivateCollege,
  type Answered,
  type Client,
  type PrivateCollege,
} from '../testing/privateCollege.testing.ts'
import { readingFiles } from './readShownFiles.ts'
import { heldThere } from './heldThere.ts'

// A form with fields in braces, written by LibreOffice 7.4.
const form = readFileSync(
  fileURLToPath(new URL('../../../interchange/src/files/samples/form.docx', import.meta.url)),
)
const pdf = readFileSync(
  fileURLToPath(new URL('../../../interchange/src/files/samples/form.pdf', import.meta.url)),
)
const sha = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')

let college: PrivateCollege
let person: Person
let designer: Client
beforeAll(async () => {
  college = await startPrivateCollege()
  person = await college.person('designer')
  designer = await college.as(person)
})
afterAll(() => college.stop())

const put = (client: Client, bytes: Uint8Array, name: string): Promise<Answered> =>
  client.send(`/api/files?name=${encodeURIComponent(name)}`, bytes, 'application/octet-stream')
const kept = async (bytes: Uint8Array, name: string): Promise<KeptFile> => {
  const { status, body } = await put(designer, bytes, name)
  expect([status, body.detail]).toEqual([200, undefined])
  return body
}
const count = async (table: string): Promise<number> =>
  Number(
    (
      await college.rows<{ n: number }>(`SELECT COUNT(*) AS n
        FROM ${table}`)
    )[0]?.n,
  )

describe('bytes', () => {
  async function* inBits(bytes: Uint8Array, size: number): AsyncGenerator<Uint8Array> {
    for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size)
  }
  it.each([1, 7, 65_536, 1_000_000, 5_000_000])(
    'that come %i at a time are kept in pieces and come back as they were',
    async (size) => {
      const bytes = randomBytes(size === 1 ? 300 : 1_400_003)
      const outcome = await keepContent(college.pool, inBits(bytes, size), mostFileBytes)
      expect(outcome).toEqual({
        state: 'kept',
        content: sha(bytes),
        bytes: bytes.length,
        isNew: true,
      })
      expect((await contentWhole(college.pool, sha(bytes)))?.equals(bytes)).toBe(true)
      const pieces: number[] = []
      for await (const piece of (await contentPieces(college.pool, sha(bytes))) ?? [])
        pieces.push(piece.length)
      expect(Math.max(...pieces)).toBeLessThanOrEqual(256 * 1024)
    },
  )
  it('that are too many, none, or break off leave nothing behind', async () => {
    const before = [await count('file_contents'), await count('file_pieces')]
    const keep = (source: AsyncIterable<Uint8Array>) => keepContent(college.pool, source, 1000)
    expect((await keep(inBits(randomBytes(600_000), 1000))).state).toBe('too-large')
    expect((await keep(inBits(new Uint8Array(), 10))).state).toBe('empty')
    const breaking = (async function* () {
      yield randomBytes(500)
      throw new Error('gone')
    })()
    await expect(keep(breaking)).rejects.toThrow('gone')
    expect([await count('file_contents'), await count('file_pieces')]).toEqual(before)
  })
  it('that are there already are not kept twice, also where two bring them at once', async () => {
    const bytes = randomBytes(700_000)
    const both = await Promise.all(
      [1, 2].map(() => keepContent(college.pool, inBits(bytes, 50_000), mostFileBytes)),
    )
    expect(both.map((one) => one.state === 'kept' && one.isNew).sort()).toEqual([false, true])
    const rows = await college.rows(
      `SELECT id
       FROM file_contents
       WHERE content = ?`,
      [sha(bytes)],
    )
    expect(rows).toHaveLength(1)
  })
  it('that never came to their end, since the server died, go after a day', async () => {
    await college.rows(
      `INSERT INTO file_contents (begun_at)
       VALUES (NOW(3) - INTERVAL 25 HOUR), (NOW(3))`,
    )
    expect(await forgetUnfinished(college.pool, 24)).toBe(1)
  })
})

describe('a file that is brought in', () => {
  it('is kept with what is known of it, and comes back as it was, only ever to be saved', async () => {
    const file = await kept(form, 'Syllabus form.docx')
    expect(file).toMatchObject({
      fileName: 'Syllabus form.docx',
      content: sha(form),
      bytes: form.length,
      kind: 'docx',
      fields: expect.arrayContaining(['{code}', '{term}']),
      notFields: ['{see below}'],
    })
    const answer = await fetch(
      `${college.address}/api/files/${file.content}?name=${encodeURIComponent('Prüfung 1.docx')}`,
      { headers: { cookie: '' } },
    )
    expect(answer.status).toBe(401)
    const reviewer = await college.as(await college.person('reviewer'))
    const there = await reviewer.get(`/api/files/${file.content}?name=form.docx`)
    expect(there.status).toBe(200)
    expect(there.headers.get('content-disposition')).toBe('attachment; filename=form.docx')
    expect(there.headers.get('content-security-policy')).toContain('sandbox')
    expect((await reviewer.get(`/api/files/${'0'.repeat(64)}?name=form.docx`)).status).toBe(404)
    expect((await reviewer.get(`/api/files/${file.content}?name=form.html`)).status).toBe(400)
    expect((await reviewer.get(`/api/files/none?name=form.docx`)).status).toBe(404)
  })
  it('is refused with its reason where it is none, and leaves nothing behind', async () => {
    const before = [
      await count('file_contents'),
      await count('file_pieces'),
      await count('file_readings'),
    ]
    const told = async (bytes: Uint8Array, name: string) => {
      const { status, body } = await put(designer, bytes, name)
      return `${status} ${body.detail}`
    }
    expect(await told(form, 'form.html')).toMatch(/^400 .*none that may be put in.*docx/)
    expect(await told(form, 'form.pdf')).toBe('400 “form.pdf” was not put in: it is no PDF')
    expect(await told(new Uint8Array(), 'form.pdf')).toMatch(/^400 .*empty/)
    expect(await told(randomBytes(mostFileBytes + 1), 'film.mp4')).toMatch(/^413 .*25.0 MB/)
    expect((await designer.send('/api/files', form, 'application/octet-stream')).status).toBe(400)
    expect([
      await count('file_contents'),
      await count('file_pieces'),
      await count('file_readings'),
    ]).toEqual(before)
  })
  it('that is refused under one name stays where it was kept under another', async () => {
    await kept(pdf, 'guide.pdf')
    expect((await put(designer, pdf, 'guide.docx')).status).toBe(400)
    expect(await bytesKept(college.pool, sha(pdf))).toBe(pdf.length)
  })
  it('of 25 MB is taken', async () => {
    const large = Buffer.concat([Buffer.from('ID3'), randomBytes(mostFileBytes - 3)])
    expect((await kept(large, 'lecture.mp3')).bytes).toBe(mostFileBytes)
  })
  it('comes from nobody who may not edit drafts, and from no other site', async () => {
    for (const role of ['reviewer', 'instructor'] as const) {
      const client = await college.as(await college.person(role, `${role}-of-files`))
      expect((await put(client, pdf, 'a.pdf')).status).toBe(403)
    }
    expect((await put(college.stranger, pdf, 'a.pdf')).status).toBe(401)
    const answer = await fetch(`${college.address}/api/files?name=a.pdf`, {
      method: 'POST',
      body: new Uint8Array(pdf),
    })
    expect(answer.status).toBe(403)
  })
})

/** The example with a guide for everybody and a form to be filled in, in its first module. */
const handingOut = (key: string, guide: KeptFile, blank: KeptFile): Template => {
  const template = { ...exampleTemplate(), key, title: key }
  const files = [fileAmong(guide, [])]
  files.push(fileAmong(blank, files))
  const items: Item[] = [
    { ...newItem('file', 'guide', 'Guide'), file: { key: files[0]?.key } },
    { ...newItem('file', 'form', 'Syllabus form'), file: { key: files[1]?.key, left: 'theirs' } },
  ]
  const [first] = template.parts
  if (first && isModule(first)) first.items.push(...items)
  return { ...template, files }
}
const there = (id: string): Course => {
  const course = college.platform.courses.get(id)
  if (!course) throw new Error('the platform has it')
  return course
}
const item = (id: string, name: string): CourseItem => {
  const found = everyCourseItem(there(id)).find((placed) => placed.item.name === name)?.item
  if (!found) throw new Error(`no ${name}`)
  return found
}

describe('a file in the library', () => {
  it('is there with its bytes, or not at all; what takes its place is in drafts at once', async () => {
    const guide = await kept(pdf, 'guide.pdf')
    const file = { ...fileAmong(guide, []), key: 'harbour-guide' }
    const intoLibrary = (document: object, was: number | null) =>
      designer.post('/api/library', { kind: 'file', was, document })
    const lacking = await intoLibrary({ ...file, content: 'a'.repeat(64) }, null)
    expect([lacking.status, lacking.body.detail]).toEqual([400, expect.stringMatching(/not here/)])
    expect((await intoLibrary(file, null)).body).toEqual({ revision: 1 })
    const template = { ...exampleTemplate(), key: 'with-guide', title: 'With guide', files: [file] }
    expect((await designer.post('/api/templates', template)).status).toBe(200)
    const other = await kept(Buffer.concat([pdf, Buffer.from('\n%1')]), 'guide.pdf')
    expect(
      (await intoLibrary({ ...file, content: other.content, bytes: other.bytes }, 1)).body,
    ).toEqual({ revision: 2 })
    const draft = (await designer.get('/api/templates/with-guide')).body.draft as Template
    expect(draft.files[0]?.content).toBe(other.content)
  })
  it('is kept current for all courses where that is said: pages lead to the newest, which anybody may have', async () => {
    const guide = await kept(pdf, 'guide.pdf')
    const file = { ...fileAmong(guide, []), key: 'muster-plan', title: 'Muster plan' }
    const intoLibrary = (document: object, was: number | null) =>
      designer.post('/api/library', { kind: 'file', was, document })
    const anybody = () => fetch(`${college.address}/house-files/muster-plan`)
    expect((await intoLibrary(file, null)).body).toEqual({ revision: 1 })
    expect((await anybody()).status).toBe(404)
    const current = { ...file, current: true }
    expect((await intoLibrary(current, 1)).body).toEqual({ revision: 2 })
    const first = await anybody()
    expect([first.status, first.headers.get('content-disposition')]).toEqual([
      200,
      'attachment; filename=guide.pdf',
    ])
    expect(first.headers.get('content-security-policy')).toBe("sandbox; default-src 'none'")
    expect(sha(new Uint8Array(await first.arrayBuffer()))).toBe(guide.content)
    // As a browser asks that has it already.
    const again = await new Promise((resolve) =>
      get(
        `${college.address}/house-files/muster-plan`,
        { headers: { 'if-none-match': first.headers.get('etag') ?? '' } },
        (answer) => resolve(answer.resume().statusCode),
      ),
    )
    expect(again).toBe(304)
    const other = await kept(Buffer.concat([pdf, Buffer.from('\n%2')]), 'guide.pdf')
    const replaced = { ...current, content: other.content, bytes: other.bytes }
    expect((await intoLibrary(replaced, 2)).body).toEqual({ revision: 3 })
    expect(sha(new Uint8Array(await (await anybody()).arrayBuffer()))).toBe(other.content)
    const { current: _, ...without } = replaced
    for (const taken of [without, { ...replaced, fields: ['{code}'] }]) {
      const refused = await intoLibrary(taken, 3)
      expect([refused.status, refused.body.detail]).toEqual([
        409,
        expect.stringMatching(/it stays so/),
      ])
    }
    for (const key of ['harbour-guide', 'no-such', '..%2Fmuster-plan'])
      expect((await fetch(`${college.address}/house-files/${key}`)).status).toBe(404)
  })
  it('that came as a name only is told when its template is released', async () => {
    const file = { ...fileAmong(await kept(pdf, 'guide.pdf'), []), content: 'b'.repeat(64) }
    const template = { ...exampleTemplate(), key: 'elsewhere', title: 'Elsewhere', files: [file] }
    expect((await designer.post('/api/templates', template)).status).toBe(200)
    const answer = await designer.post('/api/templates/elsewhere/release', {
      revision: 0,
      note: 'x',
    })
    expect([answer.status, answer.body.detail]).toEqual([
      409,
      expect.stringMatching(/“guide.pdf” are not here/),
    ])
  })
  it('that was only kept as somebody’s answer stays for good once a template hands it out', async () => {
    const bytes = Buffer.concat([pdf, Buffer.from('% an answer')])
    const file = fileAmong(await kept(bytes, 'plan.pdf'), [])
    await noteAnswerFile(college.pool, 1, { name: file.fileName, content: file.content }, true)
    const template = { ...exampleTemplate(), key: 'handing', title: 'Handing', files: [file] }
    expect((await designer.post('/api/templates', template)).status).toBe(200)
    const released = await designer.post('/api/templates/handing/release', {
      revision: 0,
      note: 'x',
    })
    expect(released.status).toBe(200)
    await college.rows(`UPDATE answer_files
      SET put_at = NOW(3) - INTERVAL 99 DAY`)
    await forgetAnswerFiles(college.pool, 30)
    expect(await bytesKept(college.pool, file.content)).toBe(bytes.length)
  })
})

/** A rollout of the first version of a template into a course, to be planned. */
const planOf = (template: string, course: number) =>
  designer.post('/api/rollouts', {
    order: {
      mode: 'version',
      template,
      version: 1,
      only: null,
      except: [],
      restore: { fixedText: false, missingParts: false },
      adopt: false,
    },
    courses: [course],
  })

describe('files that pages lead to', () => {
  it('are sent, the form filled; what is kept current is led to where it is kept, unless only the template says so', async () => {
    const [guide, blank] = [await kept(pdf, 'guide.pdf'), await kept(form, 'form.docx')]
    const template = handingOut('led-to', guide, blank)
    const [welcome] = template.parts.flatMap((part) => (isModule(part) ? part.items : []))
    if (!welcome || isModule(welcome)) throw new Error('no page')
    const current = { ...fileAmong(guide, []), current: true as const }
    template.files.push(
      { ...current, key: 'muster-plan', fileName: 'muster.pdf' },
      { ...current, key: 'not-in-library', fileName: 'mine.pdf' },
    )
    welcome.blocks.push({
      kind: 'document',
      key: 'documents',
      strength: 'must',
      label: '',
      title: 'Muster',
      files: ['form', 'muster-plan', 'not-in-library'],
    })
    await designer.post('/api/library', {
      kind: 'file',
      was: null,
      document: { ...current, key: 'not-in-library', current: undefined },
    })
    await college.release(template, person)
    await college.platform.connector.create('led-to', 'New course')
    const course = await college.addCourse(there('led-to'), {})
    const planned = await planOf('led-to', course)
    await college.work()
    await designer.post(`/api/runs/${planned.body.run}/approve`, {})
    await college.work()
    const { tasks } = (await designer.get(`/api/runs/${planned.body.run}`)).body
    expect(tasks).toMatchObject([{ state: 'done' }])
    const [html = ''] = everyCourseItem(there('led-to')).flatMap(({ item }) =>
      item.html?.includes('Muster (') ? [item.html] : [],
    )
    const filled = /href="handout:([0-9a-f]{64})\/form\.docx"/.exec(html)?.[1] ?? ''
    expect(filled).not.toBe(blank.content)
    expect(college.platform.contents.get(filled)).toBeDefined()
    expect(html).toMatch(/href="https?:\/\/[^"]*\/house-files\/muster-plan">Muster \(PDF\)</)
    expect(html).toContain(`href="handout:${guide.content}/mine.pdf">Muster (PDF, `)
  })
})

describe('files that are rolled out', () => {
  let made = 0
  /** A new course under a template of its own that hands out the guide and the form. */
  const deployed = async (more: { title?: string } = {}) => {
    const key = `handing-out-${++made}`
    const [guide, blank] = [await kept(pdf, 'guide.pdf'), await kept(form, 'form.docx')]
    await college.release(handingOut(key, guide, blank), person)
    const platformId = `files-${made}`
    await college.platform.connector.create(platformId, 'New course')
    const course = await college.addCourse(there(platformId), more)
    const planned = await planOf(key, course)
    expect([planned.status, planned.body.detail]).toEqual([200, undefined])
    await college.work()
    const run = planned.body.run as number
    const go = async () => {
      await designer.post(`/api/runs/${run}/approve`, {})
      await college.work()
      return (await designer.get(`/api/runs/${run}`)).body.tasks[0]
    }
    return { key, platformId, course, run, go }
  }
  const putByInstructor = async (platformId: string, name: string, bytes: Uint8Array) => {
    const course = structuredClone(there(platformId))
    for (const placed of everyCourseItem(course))
      if (placed.item.name === 'Syllabus form') placed.item.file = { name, content: sha(bytes) }
    college.platform.contents.set(sha(bytes), Buffer.from(bytes))
    college.platform.courses.set(platformId, {
      ...course,
      revision: `${Number(course.revision) + 1}`,
    })
  }
  const rules = async (course: number): Promise<string[]> => {
    await designer.post(`/api/courses/${course}/check`, {})
    await college.work()
    const { result } = (await designer.get(`/api/courses/${course}`)).body
    return [
      ...result.findings.map(({ rule }: { rule: string }) => rule),
      ...result.outcomes.flatMap(({ rule, outcome }: { rule: string; outcome: string }) =>
        outcome === 'cannot-tell' ? [`? ${rule}`] : [],
      ),
    ].filter((rule: string) => /file|form/.test(rule))
  }

  it('arrive, a form filled for its course; what was delivered is known from what was filled in, by what it says', async () => {
    const { course, platformId, go } = await deployed({ title: 'Tides & Streams' })
    expect((await go()).state).toBe('done')
    expect(item(platformId, 'Guide').file).toEqual({ name: 'guide.pdf', content: sha(pdf) })
    const { file } = item(platformId, 'Syllabus form')
    const delivered = college.platform.contents.get(file?.content ?? '')
    if (!delivered) throw new Error('it was sent')
    const filled = (await kept(delivered, 'as delivered.docx')).words
    expect(filled).toContain('Syllabus of NAV 110 Tides & Streams')
    expect(filled).toContain('Term: Autumn 2026')
    // As it was delivered.
    expect(await rules(course)).toEqual(['form-not-filled-in'])
    // Saved again: other bytes, the same words.
    const again = fillDocument(new Uint8Array(delivered), { '{see below}': '{see below}' })
    const saved = Buffer.concat([again, Buffer.alloc(0)])
    await putByInstructor(platformId, 'Syllabus NAV 110.docx', saved)
    expect(await rules(course)).toEqual(['form-not-filled-in'])
    // Filled in.
    const answers =
      'We learn to find our way along a coast by eye, by compass and by the lead, and come home again'
    const done = fillDocument(new Uint8Array(form), { '{code}': `NAV 110 ${answers}` })
    await putByInstructor(platformId, 'Syllabus NAV 110.docx', done)
    expect(await rules(course)).toEqual([])
    // The blank form, printed to a PDF.
    await putByInstructor(platformId, 'Syllabus.pdf', pdf)
    expect(await rules(course)).toEqual(['form-not-filled-in'])
    // Something whose text nobody can read.
    await putByInstructor(platformId, 'scan.pdf', Buffer.from('%PDF-1.7\n%%EOF'))
    expect(await rules(course)).toEqual(['? form-not-filled-in'])
  })
  it('of people’s own are fetched and read only where a check asks for it', async () => {
    const { course, platformId, go } = await deployed()
    await go()
    const own = randomBytes(40).toString('hex')
    const edited = structuredClone(there(platformId))
    const [like] = everyCourseItem(edited).filter(({ item: { kind } }) => kind === 'file')
    const module = edited.modules[0]
    if (!like || !module) throw new Error('it has files')
    const letter = Buffer.from(`A letter to one student: ${own}`)
    module.children.push({
      ...like.item,
      id: 'i-letter',
      name: 'Letter',
      file: { name: 'letter.txt', content: sha(letter) },
    })
    college.platform.contents.set(sha(letter), letter)
    college.platform.courses.set(platformId, {
      ...edited,
      revision: `${Number(edited.revision) + 1}`,
    })
    await rules(course)
    const read = await college.rows(
      `SELECT content
       FROM file_readings
       WHERE content = ?`,
      [sha(letter)],
    )
    expect(read).toEqual([])
    const [snapshot] = await college.rows<{ document: string }>(
      `SELECT document
       FROM snapshots
       WHERE course_id = ?`,
      [course],
    )
    expect(snapshot?.document).not.toContain(own)
    await putByInstructor(platformId, 'mine.txt', letter)
    await rules(course)
    const [now] = await college.rows<{ document: string }>(
      `SELECT document
       FROM snapshots
       WHERE course_id = ?`,
      [course],
    )
    expect(now?.document).toContain(own)
  })
  it('are not taken for told where a platform tells what items show and not which files there are', async () => {
    const { platformId, go } = await deployed()
    await go()
    const course = there(platformId)
    expect(course).not.toHaveProperty('files')
    const untelling = readingFiles(
      {
        ...college.platform.connector,
        snapshot: async () => ({ state: 'answered', value: course }),
      },
      college.pool,
      { read: () => Promise.reject(new Error('nothing is read')), stop: async () => undefined },
    )
    expect(await untelling.snapshot(platformId)).toEqual({ state: 'answered', value: course })
  })
  it('are other bytes in a course of another name, and the same in another one of the same', async () => {
    const contentOf = async (title: string): Promise<string | undefined> => {
      const { platformId, go } = await deployed({ title })
      await go()
      return item(platformId, 'Syllabus form').file?.content
    }
    const one = await contentOf('Knots')
    expect(await contentOf('Knots')).toBe(one)
    expect(await contentOf('Splices')).not.toBe(one)
  })
  it('are sent again to a platform that lost them, and asked for only once by one process', async () => {
    const first = await deployed()
    await first.go()
    college.platform.contents.clear()
    const second = await deployed()
    expect((await second.go()).state).toBe('done')
    expect(college.platform.contents.has(sha(pdf))).toBe(true)
  })
  it.each<[string, 'hasContent' | 'putContent']>([
    ['asking', 'hasContent'],
    ['sending', 'putContent'],
  ])(
    'wait where the platform does not answer while %s, and write nothing until then',
    async (_, operation) => {
      const { platformId, go } = await deployed()
      heldThere.forget()
      college.platform.contents.clear()
      college.platform.instead(operation, {
        state: 'later',
        afterSeconds: null,
        detail: 'the platform asks to wait (503)',
      })
      expect((await go()).state).toBe('done')
      expect(item(platformId, 'Guide').file?.content).toBe(sha(pdf))
    },
  )
  it('that the platform does not take are told, and nothing of the course is written', async () => {
    const { platformId, go } = await deployed()
    heldThere.forget()
    college.platform.contents.clear()
    college.platform.instead('putContent', {
      state: 'refused',
      status: 413,
      code: 'too-large',
      detail: 'larger than is taken here',
    })
    expect(await go()).toMatchObject({
      state: 'failed',
      message: expect.stringMatching(/refused the file “guide.pdf”: larger/),
    })
    expect(there(platformId).modules).toEqual([])
  })
  it('that are not here any more are told by name', async () => {
    const { go } = await deployed()
    heldThere.forget()
    college.platform.contents.clear()
    await college.rows(
      `DELETE FROM file_contents
       WHERE content = ?`,
      [sha(pdf)],
    )
    expect(await go()).toMatchObject({
      state: 'failed',
      message: expect.stringMatching(/“guide.pdf” is not here, and not on the platform/),
    })
    await kept(pdf, 'guide.pdf')
  })
  it('are in a rehearsal as they will be in the course', async () => {
    const { platformId, course, run } = await deployed()
    heldThere.forget()
    college.platform.contents.clear()
    const answer = await designer.post(`/api/rollouts/${run}/courses/${course}/rehearse`)
    expect([answer.status, answer.body.detail]).toEqual([200, undefined])
    expect(item(answer.body.id, 'Guide').file?.content).toBe(sha(pdf))
    expect(there(platformId).modules).toEqual([])
  })
  it('go again with an undo, and what an instructor put in their place stays', async () => {
    const { platformId, run, go } = await deployed()
    await go()
    await putByInstructor(platformId, 'mine.docx', Buffer.from('mine'))
    const undo = await designer.post('/api/rollouts', { order: { mode: 'undo', run } })
    await college.work()
    await designer.post(`/api/runs/${undo.body.run}/approve`, {})
    await college.work()
    const left = everyCourseItem(there(platformId)).map(({ item: { name, file } }) => [
      name,
      file?.name,
    ])
    expect(left).toEqual([['Syllabus form', 'mine.docx']])
  })
  it('are put back by a mend where an item stands empty', async () => {
    const { platformId, course, go } = await deployed()
    await go()
    const emptied = structuredClone(there(platformId))
    for (const placed of everyCourseItem(emptied))
      if (placed.item.kind === 'file') placed.item.file = null
    college.platform.courses.set(platformId, {
      ...emptied,
      revision: `${Number(emptied.revision) + 1}`,
    })
    expect(await rules(course)).toEqual(['file-missing', 'file-missing'])
    const { result } = (await designer.get(`/api/courses/${course}`)).body
    const mends = result.findings
      .filter(({ rule }: { rule: string }) => rule === 'file-missing')
      .flatMap(({ places }: { places: { fingerprint: string; digest: string }[] }) =>
        places.map(({ fingerprint, digest }) => ({ fingerprint, digest })),
      )
    expect((await designer.post(`/api/courses/${course}/mends`, { mends })).status).toBe(200)
    await college.work()
    expect(item(platformId, 'Guide').file?.content).toBe(sha(pdf))
    expect(await rules(course)).toEqual(['form-not-filled-in'])
  })
})
