import { describe, expect, it } from 'vitest'
import { everyCourseItem, type Change, type Course } from '../course/index.ts'
import { exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem } from '../template/index.ts'
import { notReadAgain, proofOf, proofWords } from './index.ts'
import { shortenedPages } from './shortened.ts'
import { platformNames, Standing, type PlatformName } from './standing.testing.ts'

const updated = (platform: PlatformName = 'keeps marks') => {
  const at = new Standing(platform)
  at.deploy()
  const before = at.course
  const two = exampleTemplate()
  const block = everyItem(two)
    .find((item) => item.key === 'welcome')
    ?.blocks.find((block) => block.key === 'promise')
  if (block?.kind === 'fixed-text') block.html = '<p>We answer within a day, by letter.</p>'
  const { plan } = at.deploy(two)
  return { before, changes: plan.changes, after: at.course, at }
}
const proof = (before: Course, changes: readonly Change[], again: Course) =>
  proofOf(before, changes, {}, again, again.revision)
const pagesOf = (course: Course) =>
  everyCourseItem(course).filter(({ item }) => item.html !== null).length

describe('a course read again after a change set', () => {
  it.each(platformNames)('is proved page by page, however the platform writes (%s)', (platform) => {
    const { before, changes, after } = updated(platform)
    const told = proof(before, changes, after)
    expect(told).toMatchObject({
      state: 'proved',
      changedAsPlanned: changes.length,
      asTheyWere: pagesOf(after) - changes.length,
    })
    expect(proofWords(told)).toBe(
      `read again: ${changes.length} page changed as planned, ${pagesOf(after) - changes.length} as they were`,
    )
  })
  it('with what it creates, known by the platform’s ids', () => {
    const at = new Standing('keeps marks')
    const before = at.course
    const plan = at.plan()
    at.carry(plan)
    const ids = Object.fromEntries(
      plan.creates.map((instance) => [
        instance,
        at.base.parts.find((entry) => entry.instance === instance)?.platformId ?? '',
      ]),
    )
    expect(proofOf(before, plan.changes, ids, at.course, at.course.revision)).toMatchObject({
      state: 'proved',
      asTheyWere: 0,
      differences: [],
    })
  })
  const spoilt = (change: (course: Course) => void) => {
    const { before, changes, after } = updated()
    const again = structuredClone(after)
    change(again)
    return { told: proof(before, changes, again), before, changes, again }
  }
  const item = (course: Course, name: string) => {
    const found = everyCourseItem(course).find(({ item: one }) => one.name.startsWith(name))?.item
    if (!found) throw new Error(`no ${name}`)
    return found
  }
  it.each<[string, (course: Course) => void, string]>([
    [
      'a page that was to change and did not',
      (course) => void (item(course, 'Welcome').html = '<p>Old.</p>'),
      'page',
    ],
    [
      'a page that was emptied',
      (course) => void (item(course, 'Week 2 overview').html = ''),
      'empty',
    ],
    [
      'a page that is not told any more',
      (course) => void (item(course, 'Week 2 overview').html = null),
      'unseen',
    ],
    ['an item that is gone', (course) => void course.modules[1]?.children.pop(), 'missing'],
    ['another name', (course) => void (item(course, 'Week 2 overview').name = 'Else'), 'fields'],
    [
      'something that nobody planned',
      (course) => void course.stray.push({ ...item(course, 'Welcome'), id: 'x' }),
      'extra',
    ],
    [
      'another home page',
      (course) => void (course.homePage = item(course, 'Welcome').id),
      'course',
    ],
  ])('differs by %s', (_, change, what) => {
    const { told } = spoilt(change)
    expect(told.state).toBe('differs')
    expect(told.differences.map((difference) => difference.what)).toEqual([what])
  })
  const firstModule = (course: Course) => {
    const [module] = course.modules
    if (!module) throw new Error('no module')
    return module
  }
  it.each<[string, (course: Course) => void, string[]]>([
    [
      'in another module',
      (course) =>
        course.modules[1]?.children.push(firstModule(course).children.splice(0, 1)[0] as never),
      ['place'],
    ],
    ['in another order', (course) => void course.modules[2]?.children.reverse(), ['place']],
    ['hidden', (course) => void (item(course, 'Welcome').published = false), ['published']],
    [
      'shown to students',
      (course) => void (item(course, 'Notes').staffOnly = false),
      ['staffOnly'],
    ],
    [
      'due another day',
      (course) => void (item(course, 'NAV 110 · Quiz 1').dueAt = null),
      ['dueAt'],
    ],
    [
      'handed in otherwise',
      (course) => void (item(course, 'NAV 110 · Assignment').work = { attempts: 3 }),
      ['work'],
    ],
    [
      'another file',
      (course) => void (item(course, 'Welcome').file = { name: 'a.pdf', content: 'b'.repeat(64) }),
      ['file'],
    ],
    ['another kind', (course) => void (item(course, 'Welcome').kind = 'file'), ['kind']],
  ])('differs by what is %s, and says in which field', (_, change, fields) => {
    const { at } = updated()
    at.course = structuredClone(at.course)
    item(at.course, 'NAV 110 · Assignment').work = { attempts: 2 }
    item(at.course, 'Welcome').file = { name: 'a.pdf', content: 'a'.repeat(64) }
    const again = structuredClone(at.course)
    change(again)
    const told = proof(at.course, [], again)
    expect(told.differences.map(({ what }) => what)).toEqual(told.differences.map(() => 'fields'))
    expect([...new Set(told.differences.flatMap((one) => one.fields))]).toEqual(fields)
  })
  it('differs by modules: gone, renamed, hidden', () => {
    const { told } = spoilt((course) => {
      firstModule(course).name = 'Else'
      firstModule(course).published = false
    })
    expect(told.differences).toEqual([
      { name: 'Start here', what: 'fields', fields: ['name', 'published'] },
    ])
    const gone = spoilt((course) => void course.modules.shift())
    expect(gone.told.differences[0]).toEqual({ name: 'Start here', what: 'missing', fields: [] })
    // What is a module now is none of the items that were to be there.
    const other = spoilt((course) => {
      const { id } = item(course, 'Welcome')
      firstModule(course).children.shift()
      course.modules.push({ ...firstModule(course), id, children: [] })
    })
    expect(other.told.differences.map(({ what, name }) => `${what} ${name}`)).toContain(
      `missing ${item(other.before, 'Welcome').name}`,
    )
  })
  it('differs by what the course itself says', () => {
    const { at } = updated()
    at.course = {
      ...structuredClone(at.course),
      settings: { joining: 'closed' } as never,
      navigation: [{ label: 'Charts', hidden: false, to: 'https://charts.example/' }],
    }
    const differing = (change: (course: Course) => void) => {
      const again = structuredClone(at.course)
      change(again)
      return proof(at.course, [], again).differences.flatMap(({ fields }) => fields)
    }
    expect(differing((course) => void (course.name = 'Else'))).toEqual(['name'])
    expect(differing((course) => void (course.published = !course.published))).toEqual([
      'published',
    ])
    expect(differing((course) => void (course.settings = { joining: 'open' } as never))).toEqual([
      'settings',
    ])
    const [entry] = at.course.navigation
    if (!entry) throw new Error('no entry')
    const { to: _, ...silent } = entry
    expect(
      differing((course) => void (course.navigation = [{ ...entry, to: 'https://else.example/' }])),
    ).toEqual(['navigation'])
    expect(differing((course) => void (course.navigation = [{ ...entry, label: 'Else' }]))).toEqual(
      ['navigation'],
    )
    // What a platform does not tell it is not held to.
    expect(differing((course) => void (course.navigation = [silent]))).toEqual([])
    expect(differing((course) => void delete course.settings)).toEqual([])
  })
  it('differs by its questions: other ones, or in another order', () => {
    const { at } = updated()
    at.course = structuredClone(at.course)
    const asked = (text: string) => ({
      id: text,
      body: { kind: 'true-or-false' as const, text, points: 1, right: true },
    })
    item(at.course, 'NAV 110 · Quiz').questions = [asked('a'), asked('b')]
    const asking = (...texts: string[]) => {
      const again = structuredClone(at.course)
      item(again, 'NAV 110 · Quiz').questions = texts.map((text) => ({
        ...asked(text),
        id: `q-${text}`,
      }))
      return proof(at.course, [], again).differences.flatMap(({ fields }) => fields)
    }
    expect(asking('a', 'b')).toEqual([])
    for (const others of [['b', 'a'], ['a'], ['a', 'b', 'c'], ['a', 'c']])
      expect(asking(...others)).toEqual(['questions'])
  })
  it('that was edited meanwhile says so: what differs may be theirs', () => {
    const { before, changes, again } = spoilt(
      (course) => void (item(course, 'Welcome').html = '<p>Mine.</p>'),
    )
    expect(proofOf(before, changes, {}, again, 'earlier').state).toBe('edited')
    const { after, before: first, changes: planned } = updated()
    expect(proofOf(first, planned, {}, after, 'earlier').state).toBe('proved')
  })
  it('of another course altogether is no proof', () => {
    const { before, changes } = updated()
    const other = new Standing('keeps marks')
    expect(proof(before, changes, other.course).state).toBe('differs')
  })
  it('is none where what was answered cannot have been carried out', () => {
    const { before, after } = updated()
    const none = proof(before, [{ change: 'remove-item', id: 'gone' }], after)
    expect(none).toEqual({
      state: 'differs',
      changedAsPlanned: 0,
      asTheyWere: 0,
      differences: [{ name: after.name, what: 'course', fields: [] }],
    })
    expect(proofWords(none)).toBe('read again: 0 pages as they were; differs: it is another course')
  })
  it('is said in a sentence: what held, and the first three of what did not', () => {
    const { told, changes } = spoilt((course) => {
      item(course, 'Week 1 overview').html = ''
      item(course, 'Week 2 overview').html = '<p>Else.</p>'
      item(course, 'Week 3 overview').name = 'Else'
      course.stray.push({ ...item(course, 'Welcome'), id: 'x', name: 'Mine' })
      course.homePage = null
    })
    expect(proofWords(told)).toMatch(
      new RegExp(
        `^read again: ${changes.length} page changed as planned, \\d+ as they were; differs: “Week 1 overview” is empty; “Week 2 overview” says something else; “Week 3 overview” has another name; and 2 more$`,
      ),
    )
    const of = (...differences: typeof told.differences) =>
      proofWords({ state: 'edited', changedAsPlanned: 0, asTheyWere: 1, differences })
    expect(
      of({ name: 'A', what: 'missing', fields: [] }, { name: 'B', what: 'extra', fields: [] }),
    ).toBe(
      'read again: 1 page as they were; edited since: “A” is not there; “B” is there and was not planned',
    )
    expect(of({ name: 'A', what: 'unseen', fields: [] })).toContain('“A” cannot be seen')
    expect(of({ name: 'A', what: 'course', fields: ['name', 'label'] })).toContain(
      'the course has another name, label',
    )
    expect(proofWords(notReadAgain)).toBe('it could not be read again, so nothing is proved')
  })
  it('names no more differences than can be looked at', () => {
    const { told } = spoilt((course) => {
      const page = item(course, 'Welcome')
      for (let n = 0; n < 250; n++) course.stray.push({ ...page, id: `x${n}` })
    })
    expect(told.differences).toHaveLength(200)
  })
})

describe('a plan that shortens what somebody wrote', () => {
  it('says so by name before anything is approved', () => {
    const { at } = updated()
    const welcome = at.item('Welcome')
    const long =
      'Once upon a tide there was a boat and in the boat a lamp and by the lamp a chart. '
    at.write(welcome, (welcome.html ?? '').replace(/We answer[^<]*/, long.repeat(6)))
    const plan = at.plan(exampleTemplate(), undefined, { decisions: { rule: 'take', single: {} } })
    expect(
      plan.consequences.find((consequence) => consequence.code === 'shortened')?.all[0],
    ).toMatch(/^“Welcome/)
  })
  const words = (count: number): string => `<p>${'word '.repeat(count).trim()}</p>`
  it.each<[string, number, number | null, string[]]>([
    ['half of it is left', 10, 5, ['“Welcome to NAV 110”: 10 words, of which 5 would be left']],
    [
      'less than half of it is left',
      10,
      1,
      ['“Welcome to NAV 110”: 10 words, of which 1 would be left'],
    ],
    [
      'the page is taken out',
      10,
      null,
      ['“Welcome to NAV 110”: 10 words, of which 0 would be left'],
    ],
    ['more than half of it is left', 10, 6, []],
  ])('does so where %s', (_, now, then, expected) => {
    const { at } = updated()
    at.write(at.item('Welcome'), words(now))
    const { id } = at.item('Welcome')
    const change: Change =
      then === null
        ? { change: 'remove-item', id }
        : { change: 'set-item', id, fields: { html: words(then) } }
    const told = shortenedPages([change], at.course, at.base, at.bodies)
    expect(told.flatMap(({ all }) => all)).toEqual(expected)
    if (expected.length > 0)
      expect(told).toEqual([{ code: 'shortened', count: 1, example: expected[0], all: expected }])
  })
  it('does not where the page keeps its text, was empty, or is as it was deployed', () => {
    const { at } = updated()
    const { id } = at.item('Welcome')
    const silent = (change: Change) => shortenedPages([change], at.course, at.base, at.bodies)
    expect(silent({ change: 'remove-item', id })).toEqual([])
    at.write(at.item('Welcome'), '<p> </p>')
    expect(silent({ change: 'set-item', id, fields: { html: '' } })).toEqual([])
    at.write(at.item('Welcome'), words(10))
    expect(silent({ change: 'set-item', id, fields: { name: 'Else' } })).toEqual([])
    expect(silent({ change: 'set-item', id: 'gone', fields: { html: '' } })).toEqual([])
    expect(silent({ change: 'set-home', item: id })).toEqual([])
  })
  it('is silent about pages that are as they were deployed', () => {
    const { at } = updated()
    expect(
      at.plan().consequences.filter((consequence) => consequence.code === 'shortened'),
    ).toEqual([])
  })
})
