import { describe, expect, it } from 'vitest'
import { everyCourseItem, mapCourse, type CourseItem } from '../course/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { isModule, type Template } from '../template/index.ts'
import { exampleFile, exampleForm, templateHandingOut } from '../testing/exampleFiles.testing.ts'
import { overlay } from '../variant/index.ts'
import type { WorkedOutPlan } from './index.ts'
import { Standing } from './standing.testing.ts'

const deployed = (): Standing => {
  const at = new Standing('keeps marks')
  at.deploy(templateHandingOut())
  return at
}
const part = (at: Standing, key: string): CourseItem => {
  const id = at.base.parts.find((entry) => entry.part === key)?.platformId
  const item = everyCourseItem(at.course).find((placed) => placed.item.id === id)?.item
  if (!item) throw new Error(`no ${key}`)
  return item
}
const putIn = (at: Standing, key: string, name: string | null): void =>
  at.edit([
    {
      change: 'set-item',
      id: part(at, key).id,
      fields: { file: name === null ? null : { name, content: 'f'.repeat(64) } },
    },
  ])
const another =
  (key: string) =>
  (template: Template): void => {
    template.files = template.files.map((file) =>
      file.key === key ? { ...exampleFile(key, 77), fields: file.fields } : file,
    )
  }

describe('a file that a part hands out', () => {
  it('arrives, a form with the texts of its course; one that is asked for has none yet', () => {
    const at = deployed()
    expect(part(at, 'given-timetable').file).toMatchObject({ name: 'handout 1.docx' })
    expect(part(at, 'asked-picture').file).toBeNull()
    const form = new Standing('keeps marks')
      .plan(templateHandingOut())
      .changes.find((change) => change.change === 'create-item' && change.clientId === 'given-form')
    expect(form).toMatchObject({
      fields: { file: { fields: { '{code}': 'NAV 110', '{term}': 'Autumn 2026' } } },
    })
    expect(at.plan(templateHandingOut()).changes).toEqual([])
  })
  it('is replaced where the college gave out another, and comes back with an undo', () => {
    const at = deployed()
    const before = part(at, 'given-timetable').file
    const { record } = at.deploy(templateHandingOut(another('given-timetable')))
    expect(part(at, 'given-timetable').file?.name).toBe('handout 77.docx')
    at.undo(record)
    expect(part(at, 'given-timetable').file).toEqual(before)
  })
  it('is another one where a fact of the course is another, if it is filled with it', () => {
    const at = deployed()
    const facts = { ...exampleFacts(), code: 'NAV 120' }
    const changes = at
      .plan(templateHandingOut(), facts)
      .changes.filter((change) => change.change === 'set-item' && change.fields.file)
    expect(changes).toHaveLength(1)
  })
  it.each(['given-slides', 'given-form', 'asked-picture'])(
    'that is left to the instructor (%s) stays theirs, and nobody is asked',
    (key) => {
      const at = deployed()
      putIn(at, key, 'mine.pdf')
      const plan = at.plan(templateHandingOut(another(key)))
      expect(
        plan.steps.flatMap(({ fields }) => fields).filter(({ field }) => field === 'file'),
      ).toEqual([])
      at.deploy(templateHandingOut(another(key)))
      expect(part(at, key).file?.name).toBe('mine.pdf')
    },
  )
  it('that is fixed and was replaced by both is decided on, and stays until then', () => {
    const at = deployed()
    putIn(at, 'given-timetable', 'mine.pdf')
    expect(at.plan(templateHandingOut()).changes).toEqual([])
    const plan = at.plan(templateHandingOut(another('given-timetable')))
    expect(plan.steps.map(({ does }) => does)).toContain('conflict')
    at.deploy(templateHandingOut(another('given-timetable')))
    expect(part(at, 'given-timetable').file?.name).toBe('mine.pdf')
    at.deploy(templateHandingOut(another('given-timetable')), undefined, {
      decisions: { rule: 'take', single: {} },
    })
    expect(part(at, 'given-timetable').file?.name).toBe('handout 77.docx')
  })
  it('that nobody touched goes where the instructor is now asked for one', () => {
    const at = deployed()
    const asked = templateHandingOut((template) => {
      const [first] = template.parts
      for (const item of first && isModule(first) ? first.items : [])
        if (!isModule(item) && item.key === 'given-timetable') item.file = { left: 'theirs' }
    })
    at.deploy(asked)
    expect(part(at, 'given-timetable').file).toBeNull()
  })
  it('goes with its part where it is as it was deployed, and stays with it where somebody put in another', () => {
    const without = exampleTemplate()
    const untouched = deployed()
    untouched.deploy(without)
    expect(everyCourseItem(untouched.course).some(({ item }) => item.kind === 'file')).toBe(false)
    const touched = deployed()
    putIn(touched, 'given-timetable', 'mine.pdf')
    putIn(touched, 'asked-picture', 'me.jpg')
    touched.deploy(without)
    expect(everyCourseItem(touched.course).flatMap(({ item }) => item.file?.name ?? [])).toEqual([
      'mine.pdf',
      'me.jpg',
    ])
  })
  it('is taken over from a course that has one of its own where that is left to the instructor', () => {
    const at = deployed()
    putIn(at, 'given-slides', 'mine.pdf')
    const adopt = new Map(at.base.parts.map((entry) => [entry.instance, entry.platformId]))
    at.base = { ...at.base, parts: [] }
    const plan = at.plan(templateHandingOut(), undefined, { adopt })
    const told = plan.steps.flatMap(({ part, fields }) =>
      fields.filter(({ field, does }) => field === 'file' && does === 'conflict').map(() => part),
    )
    // What a filled form holds, nobody can tell from what it was filled with.
    expect(told).toEqual([])
    expect(JSON.stringify(plan.changes)).not.toContain('handout 2')
  })
})

describe('where a platform does not tell which file an item shows', () => {
  const untold = (at: Standing): void => {
    at.course = mapCourse(at.course, (item) => {
      const { file: _, ...others } = item
      return others
    })
  }
  it('nothing is written over it, no part goes, and no undo takes it away', () => {
    const at = new Standing('keeps marks')
    const { record } = at.deploy(templateHandingOut())
    untold(at)
    expect(
      JSON.stringify(at.plan(templateHandingOut(another('given-timetable'))).changes),
    ).not.toContain('handout')
    const gone = at.plan(exampleTemplate())
    expect(gone.changes.filter(({ change }) => change === 'remove-item')).toEqual([])
    const files = everyCourseItem(at.course).filter(({ item }) => item.kind === 'file')
    const reasonsOf = ({ steps }: WorkedOutPlan) =>
      steps.flatMap(({ kind, reason }) => (kind === 'file' ? [reason] : []))
    expect(reasonsOf(gone)).toEqual(
      files.map(() => expect.stringContaining('its file cannot be seen')),
    )
    const undoing = at.planUndo(record)
    expect(reasonsOf(undoing)).toEqual(files.map(() => 'its file cannot be seen; it stays'))
    for (const { item } of files)
      expect(undoing.changes).not.toContainEqual({ change: 'remove-item', id: item.id })
  })
  it('one that a rollout put there is not taken back, nor said to have been edited', () => {
    const at = new Standing('keeps marks')
    at.deploy(templateHandingOut())
    const { record } = at.deploy(templateHandingOut(another('given-timetable')))
    untold(at)
    const { changes, steps } = at.planUndo(record)
    expect(changes).toEqual([])
    expect(
      steps.flatMap(({ fields }) => fields.map(({ field, does, reason }) => [field, does, reason])),
    ).toEqual([['file', 'keep', 'cannot be seen; stays']])
  })
})

describe('a file under a key that has another one now', () => {
  it('in a course into which only another part was brought is the earlier one', () => {
    const old = templateHandingOut()
    const newer = templateHandingOut(another('given-timetable'))
    const held = overlay(old, newer, { only: ['week'], except: [] })
    const at = new Standing('keeps marks')
    at.deploy(held)
    expect(part(at, 'given-timetable').file?.name).toBe('handout 1.docx')
    const brought = overlay(old, newer, { only: ['given-timetable'], except: [] })
    const there = new Standing('keeps marks')
    there.deploy(brought)
    expect(part(there, 'given-timetable').file?.name).toBe('handout 77.docx')
  })
})

it('a form with other fields is another file', () => {
  const at = deployed()
  const changes = at.plan(
    templateHandingOut((template) => {
      template.files = template.files.map((file) =>
        file.key === 'given-form' ? exampleForm('given-form', 9) : file,
      )
    }),
  ).changes
  expect(changes).toHaveLength(1)
})
