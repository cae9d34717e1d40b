import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canonicalJson, jsonPointer, readDocument, shortHash } from '../document/index.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { applyEdit, everyPart, isModule, newItem, Template, TemplateEdit } from './index.ts'

const problemsOf = (
  change: (template: Record<string, never> & ReturnType<typeof exampleTemplate>) => void,
) => {
  const template = exampleTemplate() as Parameters<typeof change>[0]
  change(template)
  const read = readDocument(Template, template)
  return read.ok ? [] : read.problems.map((problem) => `${problem.path} ${problem.code}`)
}

describe('reading a template', () => {
  it('refuses what it does not know, with the path', () => {
    expect(
      problemsOf((template) => Object.assign(template.parts[0] ?? {}, { colour: 'red' })),
    ).toEqual(['/parts/0/colour unknown-field'])
    expect(
      problemsOf((template) => Object.assign(template, { schema: 'wickerframe.template/9' })),
    ).toEqual(['/schema not-allowed'])
    expect(
      problemsOf((template) => Object.assign(template.parts[1] ?? {}, { name: 'Week {wek}' })),
    ).toEqual(['/parts/1/name not-valid'])
  })
  it('refuses keys used twice and references to nothing', () => {
    expect(
      problemsOf((template) => Object.assign(template.parts[1] ?? {}, { key: 'casting-off' })),
    ).toEqual(['/parts/1/key not-valid'])
    expect(
      problemsOf((template) =>
        Object.assign(template.home.blocks[2] ?? {}, { links: [{ text: 'x', to: 'nowhere' }] }),
      ),
    ).toEqual(['/home/blocks/2/links/0/to not-valid'])
    expect(problemsOf((template) => (template.settings = { picture: 'quay' }))).toEqual([
      '/settings/picture not-valid',
    ])
    expect(problemsOf((template) => (template.houseTexts = []))).toContain(
      '/parts/0/items/0/blocks/2/houseText not-valid',
    )
  })
  it('refuses house texts whose revisions stand in no order', () => {
    expect(problemsOf((template) => template.houseTexts[0]?.revisions.reverse())).toEqual([
      '/houseTexts/0/revisions not-valid',
    ])
  })
  it('points by RFC 6901: a slash in a key is ~1, a tilde ~0', () => {
    expect(jsonPointer(['a/b', 0, '~'])).toBe('/a~1b/0/~0')
  })
})

/** An edit as the server reads it. */
const asSent = (edit: TemplateEdit): TemplateEdit => {
  const read = readDocument(TemplateEdit, JSON.parse(JSON.stringify(edit)))
  if (!read.ok) throw new Error(`${JSON.stringify(edit)}: ${JSON.stringify(read.problems)}`)
  return read.value
}

describe('edits of a draft', () => {
  const strong: TemplateEdit = {
    edit: 'set-field',
    part: 'welcome',
    field: ['strength'],
    was: 'must',
    value: 'should',
  }
  const rubric = {
    key: 'log',
    title: 'Log',
    criteria: [{ text: 'Kept', levels: [{ text: 'yes', points: 5 }] }],
  }
  it('leave the input as it was, and are taken back by their inverse', () => {
    const template = exampleTemplate()
    const edits: TemplateEdit[] = [
      strong,
      { edit: 'set-field', part: null, field: ['opening', 'leadDays'], was: 0, value: 2 },
      // What was not there, and is taken away again by what takes it back.
      {
        edit: 'set-field',
        part: 'quiz',
        field: ['settings', 'category'],
        was: null,
        value: 'Quizzes',
      },
      { edit: 'set-field', part: null, field: ['rubrics', 'log'], was: null, value: rubric },
      { edit: 'set-block', part: 'welcome', block: 'hello', field: 'hint', was: null, value: 'x' },
      {
        edit: 'set-block',
        part: 'welcome',
        block: 'hello',
        field: 'minWords',
        was: 5,
        value: null,
      },
      { edit: 'move-part', part: 'quiz', parent: 'week', at: 0 },
      { edit: 'move-part', part: 'quiz', parent: 'casting-off', at: 1 },
      { edit: 'remove-part', part: 'week' },
      {
        edit: 'set-block',
        part: 'welcome',
        block: 'hello',
        field: 'prompt',
        was: 'Tell students who you are.',
        value: 'Who are you?',
      },
      { edit: 'move-block', part: 'home-page', block: 'help', at: 0 },
      { edit: 'remove-block', part: 'welcome', block: 'promise' },
      {
        edit: 'add-block',
        part: 'welcome',
        at: 0,
        block: { kind: 'fixed-text', key: 'extra', strength: 'must', html: '<p>x</p>' },
      },
    ]
    for (const edit of edits) {
      const before = canonicalJson(template)
      const done = applyEdit(template, edit)
      if (!done.ok) throw new Error(JSON.stringify(done.problems))
      expect(canonicalJson(template)).toBe(before)
      expect(canonicalJson(done.value.template)).not.toBe(before)
      const undone = applyEdit(done.value.template, asSent(done.value.inverse))
      expect(undone.ok && canonicalJson(undone.value.template)).toBe(before)
    }
  })
  it('clash only on the same field, and show both values', () => {
    const other = applyEdit(exampleTemplate(), { ...strong, value: 'may' })
    if (!other.ok) throw new Error('it can be made')
    expect(applyEdit(other.value.template, strong)).toMatchObject({
      ok: false,
      problems: { code: 'clash', present: 'may', wanted: 'should' },
    })
    expect(
      applyEdit(other.value.template, {
        edit: 'set-field',
        part: 'welcome',
        field: ['name'],
        was: 'Welcome to {code}',
        value: 'Hello',
      }).ok,
    ).toBe(true)
  })
  it('refuse what would not be a template any more', () => {
    expect(
      applyEdit(exampleTemplate(), {
        edit: 'set-field',
        part: 'welcome',
        field: ['name'],
        was: 'Welcome to {code}',
        value: '{cod}',
      }),
    ).toMatchObject({ ok: false, problems: { code: 'not-allowed' } })
    expect(applyEdit(exampleTemplate(), { edit: 'remove-part', part: 'welcome' })).toMatchObject({
      ok: false,
      problems: { code: 'not-allowed' },
    })
    expect(
      applyEdit(exampleTemplate(), { edit: 'move-part', part: 'week', parent: 'week', at: 0 }),
    ).toMatchObject({ ok: false, problems: { code: 'not-allowed' } })
    expect(
      applyEdit(exampleTemplate(), {
        edit: 'set-field',
        part: 'welcome',
        field: ['__proto__', 'x'],
        was: null,
        value: 1,
      }),
    ).toMatchObject({ ok: false })
    expect(applyEdit(exampleTemplate(), { edit: 'remove-part', part: 'nobody' })).toMatchObject({
      ok: false,
      problems: { code: 'gone' },
    })
  })
  it('of a part’s own field leave the very same other parts, and what reads back as the same template (property)', () => {
    const template = exampleTemplate()
    const settable = fc.constantFrom<[string[], unknown]>(
      [['strength'], 'may'],
      [['name'], '{cod}'],
      [['name'], 'Other {code}'],
      [['repeat'], { per: 'week' }],
      [['repeat'], { per: 'never' }],
      [['settings', 'points'], 12],
      [['settings', 'points'], -1],
      [['settings', 'due'], { from: 'week-end' }],
      [['may', 'remove'], true],
      [['when'], { modalities: ['online'] }],
      [['colour'], 'red'],
    )
    fc.assert(
      fc.property(
        fc.constantFrom(...everyPart(template).map((part) => part.key)),
        settable,
        (key, [field, value]) => {
          const part = everyPart(template).find((part) => part.key === key)
          const was = field.reduce<unknown>(
            (at, step) => (at as Record<string, unknown> | undefined)?.[step],
            part,
          )
          const done = applyEdit(template, {
            edit: 'set-field',
            part: key,
            field,
            was: was ?? null,
            value,
          })
          const bad =
            value === '{cod}' ||
            value === -1 ||
            field[0] === 'colour' ||
            (value as { per?: string }).per === 'never'
          expect(done.ok).toBe(!bad)
          if (!done.ok) return
          const read = readDocument(Template, JSON.parse(JSON.stringify(done.value.template)))
          expect(read.ok && canonicalJson(read.value)).toBe(canonicalJson(done.value.template))
          const undone = applyEdit(done.value.template, asSent(done.value.inverse))
          expect(undone.ok && canonicalJson(undone.value.template)).toBe(canonicalJson(template))
          const others = everyPart(done.value.template).filter(
            (part) => !isModule(part) && part.key !== key,
          )
          expect(others.every((other) => everyPart(template).includes(other))).toBe(true)
        },
      ),
    )
  })
  it('reach into a list by the key of the one meant, and into what an exception adds', () => {
    const steps: TemplateEdit[] = [
      {
        edit: 'set-field',
        part: null,
        field: ['rubrics', 'log'],
        was: null,
        value: {
          key: 'log',
          title: 'Log',
          criteria: [{ text: 'Kept', levels: [{ text: 'yes', points: 5 }] }],
        },
      },
      {
        edit: 'set-field',
        part: null,
        field: ['rubrics', 'log', 'title'],
        was: 'Log',
        value: 'Log book',
      },
      {
        edit: 'set-field',
        part: 'week',
        field: ['exceptions', 'first'],
        was: null,
        value: {
          key: 'first',
          anchor: { at: 'first' },
          omit: false,
          leaveOut: [],
          set: [],
          add: [],
        },
      },
      { edit: 'add-part', parent: 'first', at: 0, part: newItem('page', 'survey', 'Survey') },
      { edit: 'set-field', part: 'survey', field: ['strength'], was: 'must', value: 'should' },
      { edit: 'move-part', part: 'survey', parent: 'week', at: 0 },
      { edit: 'move-part', part: 'quiz', parent: 'first', at: 0 },
    ]
    const made: Template[] = [exampleTemplate()]
    const inverses: TemplateEdit[] = []
    for (const step of steps) {
      const next = applyEdit(made.at(-1) as Template, step)
      if (!next.ok) throw new Error(JSON.stringify(next.problems))
      made.push(next.value.template)
      inverses.push(next.value.inverse)
    }
    expect(made.at(-1)?.rubrics[0]?.title).toBe('Log book')
    expect(everyPart(made.at(-1) as Template).map((part) => part.key)).toContain('survey')
    let back = made.at(-1) as Template
    for (const inverse of inverses.toReversed()) {
      const undone = applyEdit(back, asSent(inverse))
      if (!undone.ok) throw new Error(JSON.stringify(undone.problems))
      back = undone.value.template
    }
    expect(canonicalJson(back)).toBe(canonicalJson(made[0]))
    expect(
      applyEdit(made[3] as Template, { edit: 'move-part', part: 'week', parent: 'first', at: 0 }),
    ).toMatchObject({ ok: false, problems: { code: 'not-allowed' } })
  })
  it('put an entry into a list under its own key only', () => {
    const outcome = (field: string) =>
      applyEdit(exampleTemplate(), {
        edit: 'set-field',
        part: null,
        field: ['outcomes', field],
        was: null,
        value: { key: 'steer', text: 'Steer' },
      })
    expect([outcome('steer').ok, outcome('sail')]).toEqual([
      true,
      expect.objectContaining({
        problems: expect.objectContaining({
          code: 'not-allowed',
          where: 'the course outcome of the template',
        }),
      }),
    ])
  })
  it('keep every other part whatever is moved where', () => {
    const keys = everyPart(exampleTemplate()).map((part) => part.key)
    fc.assert(
      fc.property(
        fc.constantFrom(...keys),
        fc.constantFrom('casting-off', 'week', null),
        fc.nat(9),
        (part, parent, at) => {
          const moved = applyEdit(exampleTemplate(), { edit: 'move-part', part, parent, at })
          if (moved.ok)
            expect(
              everyPart(moved.value.template)
                .map((part) => part.key)
                .sort(),
            ).toEqual([...keys].sort())
        },
      ),
    )
  })
})

describe('short hashes', () => {
  it('are FNV-1a of 64 bits over UTF-16 code units, low byte first', () => {
    // Worked out with big integers here, from the published offset basis and prime.
    const reference = (text: string) => {
      let hash = 0xcbf29ce484222325n
      for (let i = 0; i < text.length; i++)
        for (const byte of [text.charCodeAt(i) & 0xff, text.charCodeAt(i) >>> 8])
          hash = ((hash ^ BigInt(byte)) * 0x100000001b3n) & 0xffffffffffffffffn
      return hash.toString(16).padStart(16, '0')
    }
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(shortHash(text)).toBe(reference(text))
      }),
    )
  })
})
