import { describe, expect, it } from 'vitest'
import { itemsIn, proofread, readModel, templateFromModel, withImages } from '@wickerframe/core'
import {
  demoTemplate,
  factsOfRoster,
  makeCourse,
  makeRoster,
  modelCase,
  precision,
  recall,
  scoreModels,
} from './index.ts'

const facts = factsOfRoster(makeRoster(20))
  .map(({ facts }) => facts)
  .filter(({ weeks }) => weeks >= 15)
const [first] = facts
if (!first) throw new Error('the roster has courses of 15 weeks and more')
const seeds = Array.from({ length: 12 }, (_, i) => i + 1)
const course = (story: string) =>
  makeCourse('model', demoTemplate('harbour-standard.json'), first, story, 3, (html) =>
    withImages(html.replace(/ data-wicker-[a-z]+="[^"]*"/g, ''), (name) => `/files/${name}`),
  )
const read = (story: string, refused: string[] = []) => {
  const made = templateFromModel(
    readModel(course(story), first),
    { key: 'model', title: 'Model' },
    new Set(refused),
  )
  if (!made.ok) throw new Error(JSON.stringify(made.problems))
  return made.value
}

describe('a model course', () => {
  it.each([
    [false, 0.95],
    [true, 0.85],
  ])(
    'is read back into what it was made from (edits: %s, at least %d; generated, ours)',
    (edits, least) => {
      const scores = scoreModels(facts, seeds, edits)
      for (const score of Object.values(scores)) {
        expect(precision(score)).toBeGreaterThanOrEqual(least)
        expect(recall(score)).toBeGreaterThanOrEqual(least)
      }
    },
  )
  it('of the demo gives one repeated week, its notes as guidance, its work list made, its pause apart', () => {
    const { template, proposals } = read('half done')
    expect(template.parts.map((part) => [part.name, part.repeat?.per])).toEqual([
      ['Casting off', undefined],
      ['Week {week} · {dates} · {topic}', 'week'],
      ['Resources', undefined],
      ['Wrapping Up', undefined],
    ])
    const week = template.parts[1]
    const items = week?.kind === 'module' ? week.items : []
    expect(items.map((item) => item.name)).toEqual([
      'Week {week} overview',
      'Week {week} reading',
      'Week {week} notes',
      '{code} · Discussion {week}: {topic}',
      '{code} · Assignment {number}: {topic}',
      '{code} · Quiz {week}: {topic}',
      'Week {week} weather chart',
      'Week {week} checklist',
    ])
    const overview = items[0]
    expect(overview?.kind === 'page' && overview.blocks.map((block) => block.kind)).toEqual([
      'title',
      'fixed-text',
      'fill-in',
      'guidance-note',
      'fill-in',
      'work-list',
    ])
    expect(proposals.find((proposal) => proposal.id === 'repeat')).toMatchObject({
      about: 'repeat',
      words: '16 modules are one, repeated each week',
    })
    expect(proofread(template).filter(({ severity }) => severity === 'error')).toEqual([])
  })
  it('knows weeks that were renamed by what they hold', () => {
    expect(
      read('own week names').proposals.find((proposal) => proposal.id === 'repeat')?.evidence,
    ).toContain('by what they hold')
  })
  it('takes a refusal: modules that stand apart, a name as it is, fixed text left to the instructor, a part left out', () => {
    expect(read('half done', ['repeat']).template.parts.length).toBeGreaterThan(16)
    const week = read('half done', [
      'format:week-reading',
      'part:week-notes',
      'text:week-checklist/text',
    ]).template.parts[1]
    const items = week?.kind === 'module' ? week.items : []
    expect(items.map((item) => item.name)).toContain('Week 1 reading')
    expect(items.map((item) => item.key)).not.toContain('week-notes')
    const checklist = items.find((item) => item.key === 'week-checklist')
    expect(checklist?.kind === 'page' && checklist.blocks[0]?.kind).toBe('fill-in')
  })
  it('brings nothing along that runs', () => {
    const { course: model } = modelCase(first, 1, false)
    for (const module of model.modules)
      for (const item of itemsIn(module))
        if (item.html !== null)
          item.html +=
            '<p onclick="alert(1)">x <a href="javascript:alert(1)">y</a></p><script>alert(1)</script><iframe src="https://elsewhere.example"></iframe>'
    const made = templateFromModel(readModel(model, first), { key: 'm', title: 'M' })
    expect(made.ok && JSON.stringify(made.value.template)).not.toMatch(
      /alert|iframe|onclick|javascript:/,
    )
  })
  it('never lets a hidden file leave its course, and reads names, titles and entries of any kind', () => {
    const model = course('perfect')
    const like = model.modules[0] && itemsIn(model.modules[0])[0]
    const [start] = model.modules
    if (!like || !start) throw new Error('it has items')
    start.children.push(
      {
        ...like,
        id: 'file-1',
        kind: 'file',
        name: 'Grades of Noor.xlsx',
        published: false,
        html: null,
      },
      {
        ...like,
        id: 'odd',
        name: `{odd} \\ {{name}} ${'long '.repeat(300)}`,
        html: '<h2>{half open</h2><p>{week of}</p>',
      },
    )
    model.navigation = [
      { label: 'Home', hidden: false },
      { label: 'Home', hidden: true },
      { label: 'Home', hidden: false },
      { label: '', hidden: false },
    ]
    const made = templateFromModel(readModel(model, first), { key: 'm', title: 'M' })
    expect(made).toMatchObject({ ok: true })
    expect(made.ok && JSON.stringify(made.value.template)).not.toContain('Grades of Noor')
    expect(made.ok && made.value.template.navigation.map((entry) => entry.key)).toEqual([
      'home',
      'home-2',
      'home-3',
      'part',
    ])
  })
  it('without anything that repeats becomes a template as it stands', () => {
    const bare = { ...course('perfect'), modules: course('perfect').modules.slice(0, 1) }
    const made = templateFromModel(readModel(bare, first), { key: 'm', title: 'M' })
    expect(made.ok && made.value.template.parts.map((part) => part.name)).toEqual(['Casting off'])
  })
})
