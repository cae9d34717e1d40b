import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { courseLinks, everyCourseItem, withRecordedIdentity, type Course } from '../course/index.ts'
import { readDocument } from '../document/index.ts'
import { analysePage } from '../page/index.ts'
import { identityOf } from '../plan/index.ts'
import { platformNames, Standing } from '../plan/standing.testing.ts'
import { exampleFileParts } from '../testing/exampleFiles.testing.ts'
import { exampleFacts, exampleTemplate } from '../rules/example/exampleCourse.ts'
import { Block, type Template } from '../template/index.ts'
import { checkCourse } from './index.ts'
import { propertyRuns } from '../testing/propertyRuns.testing.ts'

/** How platforms write addresses of what they hold. */
const addresses: Record<string, (id: string) => string> = {
  'the kind and the id': (id) => `/courses/c1/${id.startsWith('m') ? 'modules' : 'items'}/${id}`,
  'with a host': (id) =>
    `https://kc.example/courses/c1/${id.startsWith('m') ? 'modules' : 'pages'}/${id}`,
  'a name instead of the id': (id) =>
    `/courses/c1/${id.startsWith('m') ? 'm' : 'p'}/part-${Number(id.slice(1)) * 7}`,
}

const html = '<p>Words with <a href="part:welcome">the welcome</a>.</p>'
/** A block of every kind there is, as it is written in a document. */
const blocks: Record<Block['kind'], (key: string) => object> = {
  'fixed-text': () => ({
    html: '<p>See <a href="part:week">this week</a> and <a href="part:week-overview">its page</a>.</p>',
  }),
  'fill-in': () => ({ prompt: 'Say it in your words.' }),
  'guidance-note': () => ({ html }),
  'house-text': () => ({ houseText: 'muster' }),
  title: () => ({ text: '{code} {title}' }),
  banner: () => ({ image: 'chart' }),
  signposts: () => ({
    label: 'Ways',
    links: ['welcome', 'casting-off', 'week', 'week-overview'].map((to) => ({
      text: `To ${to}`,
      to,
    })),
  }),
  'work-list': () => ({}),
  objectives: (key) => ({ objectives: [{ key: `${key}-o`, text: 'Plot a fix' }] }),
  'key-dates': () => ({ of: 'term' }),
  schedule: () => ({}),
  'contact-card': () => ({}),
  checklist: () => ({ lines: ['Chart', 'Pencil'] }),
  video: () => ({ title: 'Tides', url: 'https://film.example/1', captions: true }),
  reading: () => ({ works: [{ text: 'Tide tables', url: 'https://tides.example/' }] }),
  'assignment-brief': () => ({ whatToDo: html }),
  'discussion-prompt': () => ({ question: html }),
  'take-care': () => ({ html }),
  'in-short': () => ({ html }),
  letter: () => ({ html }),
  'from-elsewhere': () => ({ title: 'Tide model', url: 'https://models.example/tide' }),
  document: () => ({ title: 'Study planner', files: ['given-timetable', 'given-form'] }),
  fold: () => ({ summary: 'For those who want more', html }),
  'outcome-map': () => ({}),
  table: () => ({ caption: 'Tides', header: ['Day', 'High'], rows: [['Monday', '06:10']] }),
  'kept-block': () => ({ kept: 'kept-one' }),
}
const kinds = Object.keys(blocks) as Block['kind'][]

const withBlocks = (chosen: readonly Block['kind'][], home: boolean): Template => {
  const template = exampleTemplate()
  template.assets = [
    {
      key: 'chart',
      fileName: 'chart.svg',
      svg: '<svg xmlns="http://www.w3.org/2000/svg"/>',
      alternativeText: 'A chart',
      licence: 'own work',
    },
  ]
  template.files = exampleFileParts().files
  template.keptBlocks = [
    {
      key: 'kept-one',
      title: 'Kept',
      block: { ...read('signposts', 'kept') } as Template['keptBlocks'][number]['block'],
    },
  ]
  const made = chosen.map((kind, i) => read(kind, `made-${i}`))
  const week = template.parts.find((part) => part.key === 'week')
  const page =
    week && 'items' in week ? week.items.find((item) => item.key === 'week-overview') : undefined
  if (home) template.home.blocks.push(...made)
  else if (page && 'blocks' in page) page.blocks.push(...made)
  return template
}
const read = (kind: Block['kind'], key: string): Block => {
  const result = readDocument(Block, { kind, key, ...blocks[kind](key) })
  if (!result.ok) throw new Error(`${kind}: ${JSON.stringify(result.problems)}`)
  return result.value
}

const linksNowhere = (course: Course): string[] => {
  const leadsTo = courseLinks(course)
  return everyCourseItem(course).flatMap(({ item }) =>
    analysePage(item.html ?? '')
      .links.filter(
        (link) =>
          leadsTo(link.href).leads === 'nowhere' || /^(?:ref|part|item|handout):/.test(link.href),
      )
      .map((link) => `${item.name}: ${link.href}`),
  )
}

describe('what Wickerframe writes it can read', () => {
  it('every block, on pages and the home page, however the platform writes addresses and HTML: no link is dead, nothing is told of it', () => {
    fc.assert(
      fc.property(
        fc.shuffledSubarray(kinds, { minLength: 1, maxLength: 6 }),
        fc.boolean(),
        fc.constantFrom(...Object.keys(addresses)),
        fc.boolean(),
        fc.constantFrom(...platformNames),
        (chosen, home, style, told, platform) => {
          const template = withBlocks(chosen, home)
          const at = new Standing(platform)
          at.hand.urlOf = addresses[style] ?? at.hand.urlOf
          at.hand.urlOfFile = ({ name, content }) =>
            `${style === 'with a host' ? 'https://kc.example' : ''}/courses/c1/files/${content}/${encodeURIComponent(name)}`
          // A platform need not tell which files a course holds.
          if (told) at.course = { ...at.course, files: [] }
          at.deploy(template)
          // A platform need not tell where its modules are shown, if its addresses have their ids in them.
          const course: Course =
            told || style === 'a name instead of the id'
              ? at.course
              : (JSON.parse(
                  JSON.stringify(at.course, (field, value: unknown) =>
                    field === 'url' && typeof value === 'string' && /\/(?:modules|m)\//.test(value)
                      ? undefined
                      : value,
                  ),
                ) as Course)
          expect(linksNowhere(course)).toEqual([])
          const identified = withRecordedIdentity(course, identityOf(at.base))
          const result = checkCourse({
            template,
            facts: exampleFacts(),
            course: identified,
            asOf: '2026-09-16',
          })
          if (!result.ok) throw new Error(JSON.stringify(result.problems))
          expect(
            result.value.findings
              .filter(
                (finding) =>
                  finding.rule.startsWith('link-') ||
                  /signpost|begin-link|work-list|file/.test(finding.rule),
              )
              .map((finding) => `${finding.rule}: ${finding.message}`),
          ).toEqual([])
        },
      ),
      propertyRuns(),
    )
  })
})
