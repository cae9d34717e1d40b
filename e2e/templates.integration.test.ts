import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type {
  ApiProblem,
  CourseDetail,
  CourseSummary,
  LibraryEntry,
  TakenOverDraft,
  TemplateComment,
  TemplateDraft,
  TemplateSummary,
} from '@wickerframe/contract'
import {
  emptyTemplate,
  everyCourseItem,
  newItem,
  newLayer,
  newModule,
  type Course,
  type HouseText,
  type Template,
  type TemplateChange,
  type TemplateEdit,
} from '@wickerframe/core'
import { planRollout, versionOrder, workUntil } from './rollouts.ts'
import { startTestBed, type Client, type TestBed } from './testBed.ts'

let bed: TestBed
let designer: Client
let contributor: Client
let reviewer: Client

beforeAll(async () => {
  bed = await startTestBed({ courses: 6 })
  designer = await bed.as('designer@kestrelsound.example')
  contributor = await bed.as('contributor@kestrelsound.example')
  reviewer = await bed.as('reviewer@kestrelsound.example')
})
afterAll(() => bed.stop())

const draftOf = async (key: string) =>
  (await designer.get<TemplateDraft>(`/api/templates/${key}`)).body
const bring = (template: object, as = designer) => as.post<ApiProblem>('/api/templates', template)
const edit = (key: string, ...edits: TemplateEdit[]) =>
  designer.post<ApiProblem>(`/api/templates/${key}/edits`, { revision: 0, edits })
const release = async (key: string) =>
  designer.post<ApiProblem & { version: number }>(`/api/templates/${key}/release`, {
    revision: (await draftOf(key)).draftRevision,
    note: 'as agreed',
  })
const small = (key: string, more: Partial<Template> = {}): Template => ({
  ...emptyTemplate(key, key),
  parts: [
    {
      ...newModule('week', 'Week {week}'),
      repeat: { per: 'week', every: 1, except: [] },
      items: [
        {
          ...newItem('page', 'overview', 'Week {week} overview'),
          blocks: [
            {
              kind: 'fixed-text',
              key: 'say',
              strength: 'must',
              html: '<p>Work from top to bottom.</p>',
            },
          ],
        },
      ],
    },
  ],
  ...more,
})

describe('a template document that is brought in', () => {
  const page = (key: string) => newItem('page', key, 'Page')
  const bad: [string, object, string][] = [
    ['of another schema version', { ...small('bad'), schema: 'wickerframe.template/2' }, '/schema'],
    [
      'with a part key twice',
      { ...small('bad'), parts: [page('one'), page('one')] },
      '/parts/1/key',
    ],
    [
      'with an exception that takes a part’s key',
      {
        ...small('bad'),
        parts: [
          {
            ...newModule('week', 'Week {week}'),
            repeat: { per: 'week' },
            items: [page('one')],
            exceptions: [{ key: 'one', anchor: { at: 'first' } }],
          },
        ],
      },
      '/parts/0/exceptions/0/key',
    ],
    [
      'with more parts than are read',
      { ...small('bad'), parts: Array.from({ length: 10_000 }, (_, i) => page(`p-${i}`)) },
      '/parts',
    ],
    [
      'with too many parts in modules',
      {
        ...small('bad'),
        parts: Array.from({ length: 30 }, (_, m) => ({
          ...newModule(`m-${m}`, 'M'),
          items: Array.from({ length: 100 }, (_, i) => page(`p-${m}-${i}`)),
        })),
      },
      '/parts',
    ],
    [
      'nested without end',
      {
        ...small('bad'),
        parts: [
          Array.from({ length: 40 }).reduce<object>(
            (inner, _, i) => ({ ...newModule(`m-${i}`, 'M'), items: [inner] }),
            page('p'),
          ),
        ],
      },
      '/parts',
    ],
    [
      'that extends itself',
      { ...small('bad'), extends: { template: 'bad', version: 1 } },
      '/extends/template',
    ],
    [
      'that shows a kept block which is not there',
      {
        ...small('bad'),
        home: { name: 'x', blocks: [{ kind: 'kept-block', key: 'k', kept: 'nothing' }] },
      },
      '/home/blocks/0/kept',
    ],
    [
      'whose kept block shows a kept block',
      {
        ...small('bad'),
        keptBlocks: [{ key: 'a', title: 'A', block: { kind: 'kept-block', key: 'k', kept: 'a' } }],
      },
      '/keptBlocks/0/block/kind',
    ],
    [
      'with a naming format that is none',
      { ...small('bad'), parts: [newItem('page', 'p', '{wek}')] },
      '/parts/0/name',
    ],
  ]
  it.each(bad)('%s is refused, with the path', async (_, document, path) => {
    const answer = await bring(document)
    expect([answer.status, answer.body.problems?.map((problem) => problem.path)]).toEqual([
      400,
      expect.arrayContaining([path]),
    ])
    expect((await designer.get('/api/templates/bad')).status).toBe(404)
  })
  it('on a version that is not here, or weakening it, is refused', async () => {
    expect(
      (await bring({ ...small('orphan'), extends: { template: 'nobody', version: 1 } })).body.type,
    ).toContain('no-upper')
    const harbour = (await designer.get<Template>('/api/templates/harbour-standard/versions/1'))
      .body
    const weak = {
      ...newLayer(harbour, 'weak', 'Weak'),
      version: undefined,
      parts: harbour.parts.slice(0, -1),
    }
    expect((await bring(weak)).body.type).toContain('weakens')
  })
  it('with objectives that serve each other in a circle is read, and nothing runs for ever', async () => {
    const circle = small('circle', { outcomes: [{ key: 'out', text: 'Out' }] })
    const week = circle.parts[0]
    if (week?.kind === 'module')
      week.objectives = [
        { key: 'a', text: 'A', serves: ['b'] },
        { key: 'b', text: 'B', serves: ['a', 'out'] },
      ]
    expect((await bring(circle)).status).toBe(200)
    expect((await release('circle')).status).toBe(200)
  })
  it('with hostile HTML is refused by name; one kept from before runs nowhere, and is not released', async () => {
    const hostile =
      '<p onclick="alert(1)">x</p><script>alert(1)</script><img src=x onerror=alert(1)>'
    const template = (html: string) =>
      small('hostile', {
        home: {
          name: 'h',
          strength: 'must',
          blocks: [{ kind: 'fixed-text', key: 'h', strength: 'must', html }],
        },
      })
    const refused = await bring(template(hostile))
    expect([refused.status, JSON.stringify(refused.body)]).toEqual([
      400,
      expect.stringMatching(/onclick.*onerror.*<script>/),
    ])
    expect((await bring(template('<p>x</p>'))).status).toBe(200)
    await bed.pool.query(
      `UPDATE templates
       SET draft = JSON_SET(draft, '$.home.blocks[0].html', ?)
       WHERE template_key = 'hostile'`,
      [hostile],
    )
    const block = (await draftOf('hostile')).draft.home.blocks[0]
    expect(block?.kind === 'fixed-text' && block.html).toBe(hostile)
    // The interface shows pages in a frame without rights, under a policy without inline script.
    const policy = (await fetch(bed.address)).headers.get('content-security-policy') ?? ''
    expect(policy).toContain("script-src 'self'")
    // Proofreading stops its release: it runs, and the image says nothing.
    expect((await release('hostile')).body.remarks?.map((remark) => remark.check)).toEqual([
      'active-content',
      'alternative-text-missing',
    ])
  })
  it('cannot be built on something else afterwards', async () => {
    expect(
      (
        await edit('circle', {
          edit: 'set-field',
          part: null,
          field: ['extends'],
          was: null,
          value: { template: 'harbour-standard', version: 1 },
        })
      ).status,
    ).toBe(400)
  })
})

describe('layers', () => {
  it('are one after another, each weakening nothing of the one above', async () => {
    expect((await bring(small('upper'))).status).toBe(200)
    expect((await release('upper')).status).toBe(200)
    const upper = (await designer.get<Template>('/api/templates/upper/versions/1')).body
    expect(
      (await bring({ ...newLayer(upper, 'middle', 'Middle'), version: undefined })).status,
    ).toBe(200)
    expect(
      (
        await edit('middle', {
          edit: 'add-part',
          parent: 'week',
          at: 1,
          part: newItem('discussion', 'talk', 'Week {week} talk'),
        })
      ).status,
    ).toBe(200)
    expect((await release('middle')).status).toBe(200)
    const middle = (await designer.get<Template>('/api/templates/middle/versions/1')).body
    expect(
      (await bring({ ...newLayer(middle, 'lower', 'Lower'), version: undefined })).status,
    ).toBe(200)
    for (const [key, part] of [
      ['middle', 'overview'],
      ['lower', 'overview'],
      ['lower', 'talk'],
    ]) {
      const answer = await edit(key ?? '', { edit: 'remove-part', part: part ?? '' })
      expect([key, part, answer.status, answer.body.type]).toEqual([
        key,
        part,
        409,
        expect.stringContaining('weakens'),
      ])
    }
  })
  it('say what a newer version above would bring, take it over once, and not from a stale draft', async () => {
    expect(
      (
        await edit('upper', {
          edit: 'set-block',
          part: 'overview',
          block: 'say',
          field: 'html',
          was: '<p>Work from top to bottom.</p>',
          value: '<p>Work from top to bottom, every day.</p>',
        })
      ).status,
    ).toBe(200)
    expect((await release('upper')).body.version).toBe(2)
    const { draftRevision, above } = await draftOf('middle')
    expect(above).toEqual({ key: 'upper', title: 'upper', version: 1, newest: 2 })
    const ask = (revision: number, dry: boolean) =>
      designer.post<TakenOverDraft>('/api/templates/middle/take-over', {
        revision,
        version: 2,
        dry,
      })
    const seen = (await ask(draftRevision, true)).body
    expect(seen.brings.map((bring) => [bring.code, bring.part])).toEqual([
      ['field-set', null],
      ['text-changed', 'overview'],
    ])
    expect((await draftOf('middle')).draftRevision).toBe(draftRevision)
    expect((await ask(draftRevision, false)).status).toBe(200)
    expect((await ask(draftRevision, false)).status).toBe(409)
    const { draft } = await draftOf('middle')
    expect([draft.extends?.version, JSON.stringify(draft.parts)]).toEqual([
      2,
      expect.stringMatching(/every day.*Week \{week\} talk/),
    ])
  })
  it('may be edited by a contributor who was let in, and by no other', async () => {
    const rename = (): Promise<{ status: number }> =>
      contributor.post('/api/templates/lower/edits', {
        revision: 0,
        edits: [{ edit: 'set-field', part: null, field: ['summary'], was: '', value: 'Ours' }],
      })
    expect((await rename()).status).toBe(403)
    expect(
      (
        await designer.post('/api/templates/lower/contributors', {
          email: 'reviewer@kestrelsound.example',
          may: true,
        })
      ).status,
    ).toBe(404)
    expect(
      (
        await designer.post('/api/templates/lower/contributors', {
          email: 'contributor@kestrelsound.example',
          may: true,
        })
      ).status,
    ).toBe(200)
    expect((await rename()).status).toBe(200)
    expect(
      (await contributor.post('/api/templates/lower/release', { revision: 1, note: '' })).status,
    ).toBe(403)
  })
})

describe('versions', () => {
  it('are compared in words', async () => {
    const changes = (
      await designer.get<TemplateChange[]>('/api/templates/upper/compare?from=1&to=2')
    ).body
    expect(
      changes.map((change) => [
        change.of,
        change.words,
        change.text?.filter((run) => run.change === 'new').map((run) => run.text),
      ]),
    ).toEqual([
      [
        'Week {week} overview',
        expect.stringMatching(/^fixed text “.+” reworded$/),
        [', every day'],
      ],
    ])
    expect((await designer.get('/api/templates/upper/compare?from=1&to=9')).status).toBe(404)
    expect((await designer.get('/api/templates/upper/compare?from=one&to=draft')).status).toBe(400)
  })
  it('are in use for one department and modality at a time, and nowhere once retired', async () => {
    const use = (number: number, inUse = true) =>
      designer.post(`/api/templates/upper/versions/${number}/use`, {
        uses: [{ department: 'NAV', modality: 'online', inUse }],
      })
    const uses = async () =>
      (await designer.get<TemplateSummary[]>('/api/templates')).body.flatMap(({ versions, key }) =>
        versions.flatMap((version) =>
          version.uses
            .filter((there) => there.department === 'NAV' && there.modality === 'online')
            .map(() => `${key} ${version.number}`),
        ),
      )
    expect(await uses()).toEqual(['distance-standard 1'])
    expect((await use(1)).status).toBe(200)
    expect((await use(2)).status).toBe(200)
    expect(await uses()).toEqual(['upper 2'])
    expect(
      (await designer.post('/api/templates/upper/versions/2/retire', { retired: true })).status,
    ).toBe(200)
    expect(await uses()).toEqual([])
    expect((await use(2)).status).toBe(409)
    const course = (await designer.get<CourseSummary[]>('/api/courses')).body[0]
    expect(
      (
        await designer.post('/api/rollouts', {
          order: versionOrder('upper', 2),
          courses: [course?.id],
        })
      ).status,
    ).toBe(409)
    expect(
      (await designer.post('/api/templates/upper/versions/2/retire', { retired: false })).status,
    ).toBe(200)
    expect((await use(2)).status).toBe(200)
    expect(
      (await reviewer.post('/api/templates/upper/versions/2/retire', { retired: true })).status,
    ).toBe(403)
  })
  it('are not released with errors, and not from a draft that changed since', async () => {
    expect(
      (
        await edit('upper', {
          edit: 'add-block',
          part: 'overview',
          at: 0,
          block: {
            kind: 'fill-in',
            key: 'ask',
            strength: 'must',
            type: 'text',
            prompt: 'What should stand here?',
            scope: 'place',
            earlierPrompts: [],
          },
        })
      ).status,
    ).toBe(200)
    const refused = await release('upper')
    expect([
      refused.status,
      refused.body.remarks?.map((remark) => [remark.check, remark.part, remark.block]),
    ]).toEqual([409, [['fill-in-without-prompt', 'overview', 'ask']]])
    expect(
      (await designer.post('/api/templates/upper/release', { revision: 0, note: '' })).status,
    ).toBe(409)
  })
})

describe('a draft that several edit', () => {
  it('tells which of the edits sent was refused, and makes none of them', async () => {
    const edits: TemplateEdit[] = [
      { edit: 'set-field', part: 'overview', field: ['strength'], was: 'must', value: 'should' },
      { edit: 'set-field', part: 'overview', field: ['name'], was: 'Another name', value: 'Mine' },
    ]
    const answer = await edit('upper', ...edits)
    expect([answer.status, answer.body.edit, answer.body.clash]).toEqual([
      409,
      1,
      {
        code: 'clash',
        where: 'the name of “Week {week} overview”',
        present: 'Week {week} overview',
        wanted: 'Mine',
      },
    ])
    expect(JSON.stringify((await draftOf('upper')).draft)).not.toContain('"strength":"should"')
  })
  it('lets two set different entries of one list', async () => {
    const add = (key: string) =>
      edit('upper', {
        edit: 'set-field',
        part: null,
        field: ['outcomes', key],
        was: null,
        value: { key, text: `Do ${key}` },
      })
    expect([(await add('one')).status, (await add('two')).status]).toEqual([200, 200])
    expect(
      (
        await edit('upper', {
          edit: 'set-field',
          part: null,
          field: ['outcomes', 'one', 'text'],
          was: 'Do one',
          value: 'Do it',
        })
      ).status,
    ).toBe(200)
    expect((await draftOf('upper')).draft.outcomes).toEqual([
      { key: 'one', text: 'Do it' },
      { key: 'two', text: 'Do two' },
    ])
    expect(
      (await designer.get<{ revision: number }>('/api/templates/upper/revision')).body.revision,
    ).toBe((await draftOf('upper')).draftRevision)
  })
})

describe('comments', () => {
  it('are written by readers, answered, closed and opened again; an answer is not answered', async () => {
    const write = (as: Client, body: object) =>
      as.post<{ id: number }>('/api/templates/upper/comments', body)
    const { id } = (await write(reviewer, { part: 'overview', text: 'Too long?' })).body
    const answer = (await write(designer, { answersTo: id, text: 'Shorter now.' })).body
    expect((await write(designer, { answersTo: answer.id, text: 'And more' })).status).toBe(404)
    expect((await write(reviewer, { text: '   ' })).status).toBe(400)
    expect((await draftOf('upper')).openComments).toBe(1)
    expect(
      (await designer.post(`/api/templates/upper/comments/${id}/close`, { closed: true })).status,
    ).toBe(200)
    expect(
      (await designer.post(`/api/templates/middle/comments/${id}/close`, { closed: true })).status,
    ).toBe(404)
    const all = (await reviewer.get<TemplateComment[]>('/api/templates/upper/comments')).body
    expect(
      all.map((comment) => [comment.part, comment.text, comment.by, comment.closedBy]),
    ).toEqual([
      ['overview', 'Too long?', 'Halima Strand', 'Ingrid Okafor'],
      ['overview', 'Shorter now.', 'Ingrid Okafor', null],
    ])
    expect((await draftOf('upper')).openComments).toBe(0)
  })
})

describe('the library', () => {
  const library = async () => (await designer.get<LibraryEntry[]>('/api/library')).body
  const entry = async (key: string) => (await library()).find((held) => held.key === key)
  it('holds what templates brought along, and tells where each is used', async () => {
    const muster = await entry('muster')
    expect(muster).toMatchObject({ kind: 'house-text', title: 'Emergency Muster', revision: 1 })
    expect(muster?.templates.map((template) => template.key)).toEqual(
      expect.arrayContaining(['harbour-standard', 'navigation-programme']),
    )
    expect(muster?.courses).toBeGreaterThan(0)
  })
  it('puts a revision of a house text in force for versions already released, and rewrites none that stands in courses', async () => {
    const muster = await entry('muster')
    if (!muster) throw new Error('it is there')
    const document = muster.document as HouseText
    const next = {
      ...document,
      revisions: [
        ...document.revisions,
        {
          number: document.revisions.length + 1,
          inForceFrom: '2026-09-10',
          html: '<p>Muster at the flagpole.</p>',
        },
      ],
    }
    const put = (was: number | null, body: object) =>
      designer.post<ApiProblem>('/api/library', { kind: 'house-text', was, document: body })
    expect((await put(null, next)).status).toBe(409)
    expect((await put(9, next)).body.type).toContain('stale')
    expect(
      (
        await put(1, {
          ...next,
          revisions: next.revisions.map((revision) => ({ ...revision, html: '<p>Otherwise.</p>' })),
        })
      ).body.type,
    ).toContain('rewritten')
    expect((await put(1, next)).status).toBe(200)
    const version = (await designer.get<Template>('/api/templates/harbour-standard/versions/1'))
      .body
    expect(version.houseTexts.find((text) => text.key === 'muster')?.revisions.at(-1)?.html).toBe(
      '<p>Muster at the flagpole.</p>',
    )
    expect(
      (await reviewer.post('/api/library', { kind: 'house-text', was: 2, document: next })).status,
    ).toBe(403)
  })
  it('shows a linked house text to anybody, in the words in force, and to a course by its address', async () => {
    const put = (document: object) =>
      designer.post('/api/library', { kind: 'house-text', was: null, document })
    expect(
      (
        await put({
          key: 'quiet',
          title: 'Quiet <hours>',
          revisions: [
            { number: 1, inForceFrom: '2026-01-01', html: '<p>After ten.</p>' },
            { number: 2, inForceFrom: '2027-01-01', html: '<p>After nine.</p>' },
          ],
        })
      ).status,
    ).toBe(200)
    // As one may have been kept before anything was refused.
    const keep = (html: string) =>
      bed.pool.query(
        `UPDATE library_entries
         SET document = JSON_SET(document, '$.revisions[0].html', ?)
         WHERE entry_key = 'quiet'`,
        [html],
      )
    await keep('<p onclick="alert(1)">After ten.</p><script>alert(1)</script>')
    const page = await fetch(`${bed.address}/house-texts/quiet`)
    const html = await page.text()
    expect([page.status, page.headers.get('content-security-policy')]).toEqual([
      200,
      expect.stringContaining("default-src 'none'"),
    ])
    expect(html).toContain('<h1>Quiet &lt;hours&gt;</h1><p>After ten.</p>')
    expect(html).not.toMatch(/script|onclick|After nine/)
    await keep('<p>After ten.</p>')
    expect((await fetch(`${bed.address}/house-texts/nothing`)).status).toBe(404)
    const text = (await entry('quiet'))?.document as HouseText
    const week = {
      ...newModule('quiet-week', 'Quiet week {week}'),
      repeat: { per: 'week' as const, every: 1, except: [] },
      items: [
        {
          ...newItem('page', 'quiet-page', 'Quiet in week {week}'),
          blocks: [
            {
              kind: 'house-text' as const,
              key: 'quiet',
              strength: 'must' as const,
              houseText: 'quiet',
              mode: 'linked' as const,
            },
          ],
        },
      ],
    }
    expect(
      (await bring(small('quiet-standard', { houseTexts: [text], parts: [week] }))).status,
    ).toBe(200)
    expect((await release('quiet-standard')).status).toBe(200)
    const course = (await designer.get<CourseSummary[]>('/api/courses')).body.find(
      ({ state }) => state === 'deployed',
    )
    const before = (await designer.get<CourseDetail>(`/api/courses/${course?.id}`)).body.snapshot
    const { run, plans } = await planRollout(bed, designer, versionOrder('quiet-standard', 1), [
      course?.id ?? 0,
    ])
    expect(plans[0]?.reason).toContain('whose own parts stay')
    await designer.post(`/api/runs/${run}/approve`)
    const done = await workUntil(bed, designer, run, 'done')
    expect(done.tasks.map((task) => task.state)).toEqual(['done'])
    const detail = (await designer.get<CourseDetail>(`/api/courses/${course?.id}`)).body
    expect(detail.snapshot?.modules.map((module) => module.name)).toEqual(
      expect.arrayContaining(before?.modules.map((module) => module.name) ?? []),
    )
    const pages = everyCourseItem(detail.snapshot as Course).filter(({ item }) =>
      item.name.startsWith('Quiet in week'),
    )
    expect(pages.length).toBeGreaterThan(6)
    expect(
      pages.every(({ item }) => item.html?.includes(`href="${bed.address}/house-texts/quiet"`)),
    ).toBe(true)
  })
  it('brings a corrected block to every draft that shows it, and to no layer that shows it from above', async () => {
    const block = {
      key: 'care',
      title: 'Care',
      block: { kind: 'take-care', key: 'k', strength: 'must', html: '<p>Mind the step.</p>' },
    } as const
    expect(
      (
        await bring(
          small('keeper', {
            keptBlocks: [block],
            home: {
              name: 'h',
              strength: 'must',
              blocks: [{ kind: 'kept-block', key: 'here', strength: 'must', kept: 'care' }],
            },
          }),
        )
      ).status,
    ).toBe(200)
    expect((await release('keeper')).status).toBe(200)
    const keeper = (await designer.get<Template>('/api/templates/keeper/versions/1')).body
    expect(
      (await bring({ ...newLayer(keeper, 'keepers-layer', 'Layer'), version: undefined })).status,
    ).toBe(200)
    expect(
      (
        await designer.post('/api/library', {
          kind: 'block',
          was: 1,
          document: { ...block, block: { ...block.block, html: '<p>Mind both steps.</p>' } },
        })
      ).status,
    ).toBe(200)
    expect(JSON.stringify((await draftOf('keeper')).draft.keptBlocks)).toContain('both steps')
    expect(JSON.stringify((await draftOf('keepers-layer')).draft.keptBlocks)).not.toContain(
      'both steps',
    )
    expect(
      (await entry('care'))?.templates.map((template) => [template.key, template.current]),
    ).toEqual([
      ['keepers-layer', false],
      ['keeper', true],
    ])
  })
  it('reads a rubric file, and tells what is wrong with one', async () => {
    const send = (text: string) =>
      designer.post<ApiProblem & { criteria: unknown[] }>(
        '/api/rubric-file',
        new TextEncoder().encode(text),
        { 'content-type': 'text/csv' },
      )
    expect((await send('Criterion,Full (4),None (0)\nKnots,all,none')).body.criteria).toEqual([
      {
        text: 'Knots',
        levels: [
          { text: 'all', points: 4 },
          { text: 'none', points: 0 },
        ],
      },
    ])
    expect((await send('Criterion,Full\nKnots,all')).body.detail).toContain('Full')
    expect((await send('')).status).toBe(400)
  })
})
