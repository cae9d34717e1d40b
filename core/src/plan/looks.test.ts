import { describe, expect, it } from 'vitest'
import { everyCourseItem } from '../course/index.ts'
import { firstHouseStyle, type HouseStyle } from '../houseStyle/index.ts'
import { exampleFacts } from '../rules/example/exampleCourse.ts'
import type { Template } from '../template/index.ts'
import { firstVersion } from './generated.testing.ts'
import { platformNames, Standing, type PlatformName } from './standing.testing.ts'

const facts = exampleFacts()
const looking = (houseStyle: HouseStyle | undefined): Template => ({
  ...firstVersion(true),
  houseStyle,
})
const recoloured = looking({
  ...firstHouseStyle,
  headings: 'line',
  colours: { ...firstHouseStyle.colours, tint: '#eeeeee', link: '#0a4a5c' },
})
const pages = (at: Standing): string =>
  everyCourseItem(at.course)
    .map(({ item }) => item.html ?? '')
    .join('\n')
/** Deployed in the first look, then written in by somebody. */
const deployed = (write: (html: string) => string, platform: PlatformName): Standing => {
  const at = new Standing(platform)
  at.deploy(looking(firstHouseStyle), facts)
  at.writePages(write)
  return at
}
/** What a plan says of the blocks, each once. */
const said = (at: Standing, two: Template): string[] => [
  ...new Set(
    at
      .plan(two, facts)
      .steps.flatMap((step) => step.fields)
      .filter(({ field }) => field.startsWith('block:'))
      .map(({ does, reason }) => `${does}: ${reason}`),
  ),
]

describe('a template that only looks otherwise', () => {
  it.each(platformNames)('is brought to what nobody touched (%s)', (platform) => {
    const at = deployed((html) => html, platform)
    expect(said(at, recoloured)).toContain(
      'change: changed in the template; it is as it was deployed',
    )
    at.deploy(recoloured, facts)
    expect(said(at, recoloured)).toEqual([])
  })

  it.each(platformNames)(
    'is no conflict with what somebody wrote, which stays as it is, and is not asked about again (%s)',
    (platform) => {
      const at = deployed(
        (html) => html.replace(/<p([^>]*)>(?=[A-Z])/g, '<p$1>In our own words: '),
        platform,
      )
      const ours = pages(at).match(/In our own words: [^<]*/g) ?? []
      expect(ours.length).toBeGreaterThan(3)
      expect(said(at, recoloured).filter((line) => line.startsWith('conflict'))).toEqual([])
      at.deploy(recoloured, facts)
      expect(pages(at).match(/In our own words: [^<]*/g)).toEqual(ours)
      expect(said(at, recoloured)).toEqual([])
    },
  )

  it('takes its style away again where nobody wrote', () => {
    const at = deployed((html) => html, 'keeps marks')
    expect(pages(at)).toContain('style="')
    at.deploy(looking(undefined), facts)
    expect(pages(at)).not.toContain('style="')
  })
})
