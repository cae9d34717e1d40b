import { describe, expect, it } from 'vitest'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { everyItem, type Template } from '../template/index.ts'
import { Standing } from './standing.testing.ts'

const asking = (more: object = {}): Template => {
  const template = exampleTemplate()
  everyItem(template)
    .find(({ key }) => key === 'welcome')
    ?.blocks.push({
      kind: 'schedule',
      key: 'schedule',
      strength: 'must',
      label: 'Schedule',
      left: { as: 'asked' },
      ...more,
    })
  return template
}
const rows = (at: Standing): string[] =>
  [...(at.item('Welcome').html ?? '').matchAll(/<tr><th scope="row">.*?<\/tr>/gs)].map(
    ([row]) => row,
  )
const later = {
  ...exampleFacts(),
  term: { ...exampleFacts().term, firstDay: '2026-09-07', lastDay: '2026-10-30' },
}

describe('a schedule that asks what is done in each row', () => {
  it('has a column for it, in which each row asks by its own module', () => {
    const at = new Standing('keeps marks')
    at.deploy(asking({ prompt: 'What we sail' }))
    expect(at.item('Welcome').html).toContain('<th scope="col">What we sail</th>')
    const asked = rows(at).map((row) => /<p>(What we sail: [^<]+)<\/p>/.exec(row)?.[1])
    expect(asked.length).toBeGreaterThan(5)
    expect(new Set(asked).size).toBe(asked.length)
    expect(asked[0]).toContain('Charts')
  })
  it.each(['keeps marks', 'strips marks'] as const)(
    'keeps what was answered when the term moves (%s)',
    (platform) => {
      const at = new Standing(platform)
      at.deploy(asking())
      at.write(
        at.item('Welcome'),
        (at.item('Welcome').html ?? '').replace(
          /What we do: [^<]*Charts[^<]*/,
          'We walk the quay.',
        ),
      )
      at.deploy(asking(), later)
      expect(at.item('Welcome').html).toContain('We walk the quay.')
    },
  )
  it('moves with the term where nobody answered yet', () => {
    const at = new Standing('keeps marks')
    at.deploy(asking())
    const before = rows(at)
    at.deploy(asking(), later)
    expect(rows(at)[0]).not.toBe(before[0])
    expect(rows(at)[0]).toContain('What we do: ')
  })
})
