import { describe, expect, it } from 'vitest'
import { filesOfChange, withFilesSent } from '../course/index.ts'
import { handoutTo } from '../files/index.ts'
import { exampleFacts } from '../rules/example/exampleCourse.ts'
import { clipParts, everyItem, type Item, type Template } from '../template/index.ts'
import { exampleFile, templateHandingOut } from '../testing/exampleFiles.testing.ts'
import { overlay } from '../variant/index.ts'
import { Standing } from './standing.testing.ts'

const page = (template: Template): Item => {
  const found = everyItem(template).find(({ key }) => key === 'welcome')
  if (!found) throw new Error('no welcome')
  return found
}
/** A template whose welcome offers a document in two formats, one of them a form, and speaks of a file in a sentence. */
const leading = (change: (template: Template) => void = () => undefined): Template =>
  templateHandingOut((template) => {
    page(template).blocks.push(
      {
        kind: 'document',
        key: 'plan',
        strength: 'must',
        label: '',
        title: 'Study plan',
        files: ['given-timetable', 'given-form'],
      },
      {
        kind: 'fixed-text',
        key: 'sentence',
        strength: 'must',
        html: `<p>Print the <a href="${handoutTo('given-slides')}">first slides</a>.</p>`,
      },
    )
    change(template)
  })
/** Another file under a key, called and sized as the one before: only what it holds tells them apart. */
const another =
  (key: string) =>
  (template: Template): void => {
    template.files = template.files.map((file) =>
      file.key === key ? { ...file, content: exampleFile(key, 77).content } : file,
    )
  }
const links = (at: Standing): string[] =>
  [...(at.item('Welcome').html ?? '').matchAll(/href="\/c\/files\/([0-9a-f]{4})[^"]*"/g)].map(
    ([, begins = '']) => begins,
  )
const deployed = (): Standing => {
  const at = new Standing('keeps marks')
  at.deploy(leading())
  return at
}

describe('a file that a page leads to', () => {
  it('stands where the platform has it, under words that say its formats and size; another deployment changes nothing', () => {
    const at = deployed()
    const html = at.item('Welcome').html ?? ''
    expect(html).toContain('>Study plan (DOCX, 1 kB)</a> · <a href="/c/files/')
    expect(html).toContain('>Study plan (DOCX)</a>')
    expect(html).not.toContain('handout:')
    expect(links(at)).toHaveLength(3)
    expect(at.plan(leading()).changes).toEqual([])
  })
  it('is sent with the texts of its course where it has fields, and told by what was sent then', () => {
    const [change] = new Standing('keeps marks')
      .plan(leading())
      .changes.filter((change) => change.change === 'create-item' && change.clientId === 'welcome')
    if (!change) throw new Error('nothing is made')
    expect(filesOfChange(change).map(({ name, fields }) => [name, fields])).toEqual([
      ['handout 1.docx', undefined],
      ['handout 3.docx', { '{code}': 'NAV 110', '{term}': 'Autumn 2026' }],
      ['handout 2.docx', undefined],
    ])
    const sent = withFilesSent(change, ({ name, content, fields }) => ({
      name,
      content: fields ? 'c'.repeat(64) : content,
    }))
    expect(filesOfChange(sent).map(({ content, fields }) => [content.slice(0, 4), fields])).toEqual(
      [
        ['0001', undefined],
        ['cccc', undefined],
        ['0002', undefined],
      ],
    )
  })
  it.each(['given-timetable', 'given-slides'])(
    'is replaced where the college gave out another (%s), though no word of the page changes; an undo brings the earlier one back',
    (key) => {
      const at = deployed()
      const before = links(at)
      const { record } = at.deploy(leading(another(key)))
      expect(links(at)).not.toEqual(before)
      expect(links(at)).toContain('004d')
      at.undo(record)
      expect(links(at)).toEqual(before)
    },
  )
  it('is another one where a fact of the course is another, if it is filled with it', () => {
    const at = deployed()
    const changes = at.plan(leading(), { ...exampleFacts(), code: 'NAV 120' }).changes
    expect(
      changes.filter((change) => filesOfChange(change).some(({ fields }) => fields)).length,
    ).toBeGreaterThan(0)
  })
  it('that an instructor led elsewhere is never overwritten without being asked', () => {
    const at = deployed()
    const welcome = at.item('Welcome')
    at.write(
      welcome,
      (welcome.html ?? '').replace(/href="[^"]*"(>first slides)/, 'href="https://mine.example/"$1'),
    )
    const plan = at.plan(leading(another('given-slides')))
    expect(JSON.stringify(plan.changes)).not.toContain('Print the')
    at.deploy(leading(another('given-slides')))
    expect(at.item('Welcome').html).toContain('https://mine.example/')
  })
  it('of a page that was not brought is the earlier one, in a course into which only another part was', () => {
    const newer = leading((template) => {
      another('given-slides')(template)
      another('given-timetable')(template)
    })
    const at = new Standing('keeps marks')
    at.deploy(overlay(leading(), newer, { only: ['week'], except: [] }))
    expect(links(at)).not.toContain('004d')
    const brought = new Standing('keeps marks')
    brought.deploy(overlay(leading(), newer, { only: ['welcome'], except: [] }))
    expect(links(brought).filter((begins) => begins === '004d')).toHaveLength(2)
  })
  it('that the library keeps current is led to where it is kept, and stays so whatever is put in its place', () => {
    const current = (template: Template): void => {
      template.files = template.files.map((file) =>
        file.key === 'given-form' ? file : { ...file, current: true as const },
      )
    }
    const at = new Standing('keeps marks')
    at.deploy(leading(current))
    const html = at.item('Welcome').html ?? ''
    expect(html).toContain('href="house-file:given-timetable">Study plan (DOCX)<')
    expect(html).toContain('href="house-file:given-slides"')
    const { changes } = at.plan(
      leading((template) => {
        current(template)
        another('given-slides')(template)
      }),
    )
    expect(changes.flatMap(filesOfChange).map(({ name }) => name)).toEqual(['handout 2.docx'])
    expect(JSON.stringify(changes)).not.toContain('html')
  })
  it('that is kept current is led to by its own key, also from a page that was not brought; one that is from now on, only from one that was', () => {
    const current = (template: Template): void => {
      template.files = template.files.map((file) =>
        file.key === 'given-slides' ? { ...file, current: true as const } : file,
      )
    }
    const replaced = leading((template) => {
      another('given-slides')(template)
      current(template)
    })
    const deployedWith = (old: Template, only: string[]): string => {
      const at = new Standing('keeps marks')
      at.deploy(overlay(old, replaced, { only, except: [] }))
      return /href="([^"]*)">first slides/.exec(at.item('Welcome').html ?? '')?.[1] ?? ''
    }
    expect(deployedWith(leading(current), ['week'])).toBe('house-file:given-slides')
    expect(deployedWith(leading(current), ['welcome'])).toBe('house-file:given-slides')
    expect(deployedWith(leading(), ['week'])).toMatch(/^\/c\/files\/0002/)
    const gone = leading((template) => {
      template.files = template.files.filter(({ key }) => key !== 'given-slides')
      for (const item of everyItem(template)) {
        item.blocks = item.blocks.filter(({ key }) => key !== 'sentence')
        if (item.file?.key === 'given-slides') item.file = { left: 'theirs' }
      }
    })
    const at = new Standing('keeps marks')
    at.deploy(overlay(leading(current), gone, { only: ['week'], except: [] }))
    expect(at.item('Welcome').html).toContain('href="house-file:given-slides"')
  })
  it('goes along where its page is copied', () => {
    expect(clipParts(leading(), new Set(['welcome']))?.files.map(({ key }) => key)).toEqual([
      'given-timetable',
      'given-slides',
      'given-form',
    ])
  })
})
