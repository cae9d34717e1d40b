import { describe, expect, it } from 'vitest'
import { everyCourseItem } from '../course/index.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { platformNames, Standing, type PlatformName } from './standing.testing.ts'

const restoring = { restore: { missingParts: true } }
/** A course whose welcome somebody removed; the home page leads to it. */
const without = (platform: PlatformName): Standing => {
  const at = new Standing(platform)
  at.deploy()
  at.edit([{ change: 'remove-item', id: at.item('Welcome').id }])
  return at
}
const homeOf = (at: Standing) => {
  const home = everyCourseItem(at.course).find(({ item }) => item.id === at.course.homePage)?.item
  if (!home) throw new Error('no home page')
  return home
}
const leadsThere = (at: Standing): boolean =>
  (homeOf(at).html ?? '').includes(`href="${at.item('Welcome').url}"`)

describe('what is made again under a new id', () => {
  it.each(platformNames)('is led to from the pages that led to it, where a platform %s', (name) => {
    const at = without(name)
    const { plan } = at.deploy(exampleTemplate(), exampleFacts(), restoring)
    expect(leadsThere(at)).toBe(true)
    expect(plan.steps.find(({ part }) => part === 'home-page')).toMatchObject({
      does: 'change',
      fields: [{ field: 'block:begin', does: 'change', reason: 'leads to what is made again' }],
    })
    expect(at.plan().changes).toEqual([])
  })
  it('is led to from a page that somebody wrote on as well, whose words stay', () => {
    const at = without('keeps marks')
    at.write(homeOf(at), `<p>My own words.</p>${homeOf(at).html}`)
    at.deploy(exampleTemplate(), exampleFacts(), restoring)
    expect(leadsThere(at)).toBe(true)
    expect(homeOf(at).html).toContain('<p>My own words.</p>')
  })
  it('is not led to where somebody else wrote what led to it: that is theirs', () => {
    const at = without('keeps marks')
    at.write(homeOf(at), (homeOf(at).html ?? '').replace('Begin here', 'Cast off here'))
    const before = homeOf(at).html
    at.deploy(exampleTemplate(), exampleFacts(), restoring)
    expect(homeOf(at).html).toBe(before)
  })
  it('is not there, and nothing is written, as long as nobody asks for it', () => {
    const at = without('keeps marks')
    expect(at.plan().changes).toEqual([])
  })
})
