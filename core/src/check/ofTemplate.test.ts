import { describe, expect, it } from 'vitest'
import { emptyTemplate } from '../begin/index.ts'
import { addDays } from '../calendar/index.ts'
import { everyCourseItem, type Course } from '../course/index.ts'
import { exampleCourse, exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { ruleById } from '../rules/index.ts'
import { everyItem, type Template } from '../template/index.ts'
import { checkCourse } from './index.ts'
import { ofTemplate } from './ofTemplate.ts'

const lorem = '<p>Lorem ipsum dolor sit amet.</p>'

const checked = ({
  template: change = () => undefined,
  course: edit = () => undefined,
  asOf = '2026-10-14',
}: {
  template?: (template: Template) => void
  course?: (course: Course) => void
  asOf?: string
}) => {
  const template = exampleTemplate()
  change(template)
  const example = exampleCourse(template, exampleFacts())
  edit(example.course)
  const result = checkCourse({ ...example, asOf })
  if (!result.ok) throw new Error(JSON.stringify(result.problems))
  return result.value
}
const told = (given: Parameters<typeof checked>[0]) =>
  checked(given).findings.map(
    ({ rule, mender, owner, ofTemplate }) => `${rule} ${mender} ${owner} ${ofTemplate}`,
  )
const welcome = (template: Template) => {
  const item = everyItem(template).find(({ key }) => key === 'welcome')
  if (!item) throw new Error('the example has no welcome')
  return item
}
const says = (html: string) => (template: Template) =>
  void welcome(template).blocks.push({ kind: 'fixed-text', key: 'new', strength: 'must', html })
const edited = (write: (html: string) => string) => (course: Course) => {
  for (const { item } of everyCourseItem(course))
    if (item.recordedAs?.part === 'welcome') item.html = write(item.html ?? '')
}

describe('what a course is told that it has from its template', () => {
  it('is the designer’s, and nobody’s of the course', () => {
    expect(told({ template: says(lorem) })).toEqual(['filler-text designer null true'])
  })
  it('is so under another address as well, which every platform gives of its own', () => {
    expect(
      told({
        template: says('<p><img src="/files/chart.png"></p>'),
        course: edited((html) => html.replace('/files/chart.png', '/d/88/download?verify=1')),
      }),
    ).toEqual(['alt-missing designer null true'])
  })
  it('is the instructor’s where something else is wrong there than what the template has', () => {
    expect(
      told({
        template: says(lorem),
        course: edited((html) => html.replace(lorem, '<p>Topic to be added.</p>')),
      }),
    ).toContain('filler-text instructor sunniva.drake@kestrelsound.example undefined')
  })
  it('is the instructor’s where only the course can meet it, though a sound template leaves it so', () => {
    expect(
      told({ template: says('<p><img src="/files/placeholder.png" alt="A lighthouse"></p>') }),
    ).toEqual(['image-placeholder instructor sunniva.drake@kestrelsound.example undefined'])
  })
  it('counts as open all the same: the course is not as it should be', () => {
    expect(
      checked({
        template: (template) => {
          for (const item of everyItem(template))
            if (item.kind === 'assignment') delete item.settings.due
        },
      }),
    ).toMatchObject({ readiness: 'not-ready', counts: { openMusts: 1 } })
  })
  it('is nothing where the template asks for nothing, and all is the instructor’s', () => {
    const template = emptyTemplate('none', 'None')
    template.home.blocks = []
    const { course, facts } = exampleCourse(exampleTemplate(), exampleFacts())
    edited((html) => html + lorem)(course)
    const result = checkCourse({ template, facts, course, asOf: '2026-10-14' })
    if (!result.ok) throw new Error(JSON.stringify(result.problems))
    const [filler] = result.value.findings.filter(({ rule }) => rule === 'filler-text')
    expect([filler?.mender, filler?.ofTemplate]).toEqual(['instructor', undefined])
  })
  it('is worked out once for courses of departments that nothing in it tells apart', () => {
    /** Departments of courses that had to be judged to tell it, in this order. */
    const filler = ruleById('filler-text')
    if (!filler) throw new Error('there is a rule for it')
    const elsewhere = { part: 'elsewhere', instance: null, week: null, foundId: null, path: [] }
    const judgedFor = (template: Template, departments: readonly string[]) => {
      const judged: string[] = []
      for (const department of departments)
        ofTemplate(
          { template, facts: { ...exampleFacts(), department }, asOf: '2026-10-14' },
          (first) => {
            judged.push(first.facts.department)
            return checkCourse(first)
          },
        ).isOwn(filler, elsewhere, [])
      return judged
    }
    // No template of another test: what is told of those is known.
    const template = exampleTemplate()
    says(`${lorem}<p>Said here alone.</p>`)(template)
    expect(judgedFor(template, ['NAV', 'MEN', 'GAL'])).toEqual(['Any'])
    const apart = exampleTemplate()
    says(lorem)(apart)
    const [part] = apart.parts
    if (part) part.when = { departments: ['MEN', 'GAL'] }
    expect(judgedFor(apart, ['NAV', 'MEN', 'OSC', 'GAL', 'MEN'])).toEqual(['Any', 'MEN', 'GAL'])
  })
  it('holds no longer than what it was held against', () => {
    const late = (template: Template) => {
      for (const item of everyItem(template))
        if (item.kind === 'assignment')
          item.settings.due = { from: 'week-end', days: 9, time: '23:59' }
    }
    const on = (asOf: string) => checked({ template: late, asOf })
    const { holds, findings } = on('2026-09-16')
    expect(findings.map(({ ofTemplate }) => ofTemplate)).not.toContain(undefined)
    expect(findings.length).toBeGreaterThan(0)
    const { from, until } = holds
    if (from === null || until === null) throw new Error('it holds for some days of the term')
    expect(from <= '2026-09-16' && '2026-09-16' < until).toBe(true)
    for (let day = from; day < until; day = addDays(day, 1))
      expect(on(day).findings).toEqual(findings)
  })
})
