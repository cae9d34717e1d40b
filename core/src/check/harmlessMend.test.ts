import { describe, expect, it } from 'vitest'
import type { Change } from '../course/index.ts'
import { exampleCourse } from '../rules/example/exampleCourse.ts'
import type { ExampleCourse } from '../rules/index.ts'
import { everyItem } from '../template/index.ts'
import { exampleContext } from './exampleContext.testing.ts'
import { harmlessMend, mayShow, refusalWords } from './harmlessMend.ts'

type Fields = Extract<Change, { change: 'set-item' }>['fields']
const set = (id: string, fields: Fields): Change => ({ change: 'set-item', id, fields })
/** What becomes of mends in the example’s course, after it was changed. */
const after = (
  make: (example: ExampleCourse) => Change[],
  change: (example: ExampleCourse) => void = () => undefined,
) => {
  const example = exampleCourse()
  change(example)
  const mend = make(example)
  return { mend, result: harmlessMend(mend, exampleContext(example)) }
}
/** A mend that gives the third week’s overview another page. */
const rewritten = (html: (was: string) => string, was: (html: string) => string = (own) => own) =>
  after(
    (example) => {
      const { id, html: before } = example.item('week-overview', 3)
      return [set(id, { html: html(before ?? '') })]
    },
    (example) => {
      const item = example.item('week-overview', 3)
      item.html = was(item.html ?? '')
    },
  ).result

describe('a mend of a page', () => {
  const written = '<p>Tie a bowline at dawn.</p>'
  it.each<[string, string]>([
    ['words', written],
    ['a picture', '<p><img src="/files/knot.png" alt="A knot"></p>'],
    ['a film', '<p><video src="/files/knot.webm"></video></p>'],
    ['a link', '<p><a href="https://kestrelsound.example/x">Publish</a></p>'],
  ])('that would lose %s of somebody’s own is not to be had', (_, own) => {
    expect(
      rewritten(
        (html) => html.replace(own, ''),
        (html) => html + own,
      ),
    ).toEqual({ refusal: { code: 'own-words', name: 'Week 3 overview' } })
  })
  it('that would lose one of two that are alike is none either', () => {
    expect(
      rewritten(
        (html) => html.replace(written, ''),
        (html) => html + written + written,
      ),
    ).toHaveProperty('refusal')
  })
  it('that keeps all of it, in another order and more, is made as it is', () => {
    const { mend, result } = after(
      (example) => {
        const { id, html } = example.item('week-overview', 3)
        return [set(id, { html: `${written}<p>More</p>${(html ?? '').replace(written, '')}` })]
      },
      (example) => {
        const item = example.item('week-overview', 3)
        item.html += written
      },
    )
    expect(result).toEqual({ changes: mend })
  })
  it.each<[string, string]>([
    ['a note', 'A short recording of yourself works well here.'],
    ['the words that introduce it', 'Note to the instructor'],
    ['a question that was not answered', 'In two or three sentences, say what this week is about.'],
  ])('takes out what the template wrote: %s', (_, ours) => {
    const { mend, result } = after(
      (example) => {
        const { id, html } = example.item('week-overview', 3)
        return [set(id, { html: (html ?? '').replace(ours, '') })]
      },
      (example) => {
        const item = example.item('week-overview', 3)
        item.html += `<p>${ours}</p>`
      },
    )
    expect(result).toEqual({ changes: mend })
  })
  it('takes out any wording that a house text ever had, and none of another', () => {
    const welcome = (gone: string) =>
      after(
        (example) => {
          const { id, html } = example.item('welcome')
          return [set(id, { html: (html ?? '').replace(gone, '') })]
        },
        (example) => {
          const item = example.item('welcome')
          item.html += `<p>${gone}</p>`
        },
      ).result
    expect(welcome('In an emergency leave by the stair. Call 4400.')).toHaveProperty('changes')
    expect(welcome('In an emergency leave by the ladder.')).toHaveProperty('refusal')
  })
})

/** A mend of the page of a week’s checklist, which has no note of ours: what stands there gives way to something else. */
const inPlaceOf = (
  was: string,
  next: string,
  change: (example: ExampleCourse) => void = () => undefined,
) =>
  after(
    (example) => {
      const { id, html } = example.item('checklist', 3)
      return [set(id, { html: (html ?? '').replace(was, next) })]
    },
    (example) => {
      change(example)
      const item = example.item('checklist', 3)
      item.html += was
    },
  ).result

describe('what is whose', () => {
  const picture = (source: string, alt: string | null) =>
    `<p><img src="/files/${source}"${alt === null ? '' : ` alt="${alt}"`}></p>`
  it.each<[string, string, string]>([
    ['a picture', picture('mine.png', 'A knot'), picture('ours.png', 'A knot')],
    ['what a picture is said to show', picture('a.png', 'A bowline'), picture('a.png', 'A knot')],
    ['a picture that says nothing', picture('mine.png', null), picture('ours.png', '')],
    ['a film', '<video src="/files/mine.webm"></video>', '<video src="/files/ours.webm"></video>'],
    [
      'the words of a link',
      '<a href="/x"><img src="/a.png" alt="My page"></a>',
      '<a href="/x"><img src="/a.png" alt="Page"></a>',
    ],
  ])('%s of somebody’s own is not replaced by another', (_, was, next) => {
    expect(inPlaceOf(was, next)).toHaveProperty('refusal')
  })
  it('pictures and links of the template may go', () => {
    const ours =
      '<p><img src="/files/ours.png" alt="A knot"><a href="https://tides.example/ours">Tides</a></p>'
    const put = ({ template }: ExampleCourse): void => {
      for (const { blocks } of everyItem(template))
        for (const block of blocks)
          if (block.kind === 'fixed-text' && block.key === 'tick') block.html += ours
    }
    expect(inPlaceOf(ours, '', put)).toHaveProperty('changes')
    expect(inPlaceOf(ours, '')).toHaveProperty('refusal')
  })
  it('a question that was asked otherwise before is the template’s still', () => {
    const asked = '<p>Whom do students ask ashore?</p>'
    const put = ({ template }: ExampleCourse): void => {
      everyItem(template)
        .find(({ key }) => key === 'checklist')
        ?.blocks.push({
          kind: 'fill-in',
          key: 'ask',
          strength: 'must',
          type: 'text',
          label: 'Whom to ask',
          prompt: 'Say whom to ask.',
          scope: 'place',
          earlierPrompts: ['Whom do students ask ashore?'],
        })
    }
    expect(inPlaceOf(asked, '', put)).toHaveProperty('changes')
    expect(inPlaceOf(asked, '')).toHaveProperty('refusal')
  })
  it('what introduces a note is ours where no note is, and capital letters make no other words', () => {
    expect(inPlaceOf('<p>NOTE to the Instructor</p>', '')).toHaveProperty('changes')
    expect(inPlaceOf('<p>Straße</p>', '<p>STRASSE</p>')).toHaveProperty('refusal')
  })
  it('on a page that no part of the template is, everything is somebody’s', () => {
    const { result } = after(
      () => [set('own', { html: '<p></p>' })],
      (example) => {
        const page = {
          ...example.item('welcome'),
          id: 'own',
          name: 'My page',
          recordedAs: undefined,
        }
        example
          .module('casting-off')
          .children.push({ ...page, html: '<p>All of this is mine.</p>' })
      },
    )
    expect(result).toEqual({ refusal: { code: 'own-words', name: 'My page' } })
  })
  it('a page without any words is written', () => {
    const { mend, result } = after(
      (example) => [set(example.item('checklist', 3).id, { html: '<p>Tick off.</p>' })],
      (example) => {
        example.item('checklist', 3).html = null
      },
    )
    expect(result).toEqual({ changes: mend })
  })
})

describe('work that students handed in', () => {
  const withWork = (fields: Fields, studentWork: boolean) =>
    after(
      (example) => [set(example.item('discussion', 3).id, fields)],
      (example) => {
        example.item('discussion', 3).studentWork = studentWork
      },
    )
  it.each<[string, Fields]>([
    ['points', { points: 3 }],
    ['due date', { dueAt: '2026-09-20T23:59:00Z' }],
    ['opening', { opensAt: '2026-09-01T00:00:00Z' }],
    ['closing', { closesAt: '2026-09-21T00:00:00Z' }],
  ])('keeps its %s; without any it is set', (_, fields) => {
    expect(withWork(fields, true).result).toEqual({
      refusal: { code: 'student-work', name: expect.stringContaining('Discussion 3') },
    })
    const { mend, result } = withWork(fields, false)
    expect(result).toEqual({ changes: mend })
  })
  it('keeps it where something else is set with it', () => {
    expect(withWork({ name: 'Another name', points: 3 }, true).result).toHaveProperty('refusal')
  })
  it('does not stand in the way of what is done to others, and to what is not there', () => {
    const { mend, result } = after(
      (example) => [
        set('gone', { points: 3 }),
        { change: 'set-module', id: example.module('week', 3).id, fields: { name: 'Third' } },
      ],
      (example) => {
        example.item('discussion', 3).studentWork = true
      },
    )
    expect(result).toEqual({ changes: mend })
  })
  it('is renamed all the same', () => {
    const { mend, result } = withWork({ name: 'Another name' }, true)
    expect(result).toEqual({ changes: mend })
  })
})

describe('what is kept from students', () => {
  it('is not shown by a mend that opens it', () => {
    const { result } = after((example) => [
      set(example.item('staff-notes').id, { published: true, staffOnly: false }),
    ])
    expect(result).toEqual({ refusal: { code: 'shows-hidden', name: 'Notes for the instructor' } })
  })
  it('is hidden first, where what it stands in is opened', () => {
    const { mend, result } = after(
      (example) => [
        { change: 'set-module', id: example.module('casting-off').id, fields: { published: true } },
      ],
      (example) => {
        example.module('casting-off').published = false
        Object.assign(example.item('staff-notes'), { published: true, staffOnly: false })
      },
    )
    const changes = 'changes' in result ? result.changes : []
    expect(changes.slice(0, -1)).toEqual([
      { change: 'set-item', id: expect.any(String), fields: { published: false } },
    ])
    expect(changes.at(-1)).toEqual(mend[0])
  })
  it('does not stand in the way of opening something else', () => {
    const { mend, result } = after(
      (example) => [set(example.item('week-overview', 3).id, { published: true })],
      (example) => {
        example.item('week-overview', 3).published = false
      },
    )
    expect(result).toEqual({ changes: mend })
  })
})

it.each<[Change, boolean]>([
  [set('i', { published: true }), true],
  [set('i', { staffOnly: false }), true],
  [set('i', { published: false }), false],
  [set('i', { staffOnly: true, name: 'x' }), false],
  [{ change: 'set-module', id: 'm', fields: { published: true } }, true],
  [{ change: 'set-module', id: 'm', fields: { name: 'x' } }, false],
  [{ change: 'move-item', id: 'i', module: 'm', at: null }, false],
  [{ change: 'move-item', id: 'i', module: 'n', at: null }, true],
  [{ change: 'set-course', published: true }, true],
  [
    {
      change: 'create-item',
      temporaryId: 'new',
      module: 'm',
      at: null,
      fields: { kind: 'page', name: 'New' },
    } as never,
    true,
  ],
  [{ change: 'remove-item', id: 'i' }, false],
  [{ change: 'set-navigation', published: true } as never, false],
  [{ change: 'set-course', published: false }, false],
])('may bring something into students’ view, or not: %j', (change, shows) => {
  expect(mayShow(change, () => 'm')).toBe(shows)
})

it('says of each refusal what is the matter, by name', () => {
  for (const code of ['student-work', 'own-words', 'shows-hidden'] as const)
    expect(refusalWords({ code, name: 'Knots' })).toMatch(/“Knots”.{20,}/)
})
