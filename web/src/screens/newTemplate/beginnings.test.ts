import { describe, expect, it } from 'vitest'
import { everyPart, readDocument, Template, usualSentences } from '@wickerframe/core'
import { exampleTemplate } from '@wickerframe/core/testing'
import { beginnings, isWay, readTemplateFile, type Material, type Way } from './beginnings.ts'

const ways = Object.keys(beginnings) as Way[]
const material = (more: Partial<Material> = {}): Material => ({
  key: 'harbour',
  title: 'Harbour Standard',
  taken: new Set(['new', 'example-standard']),
  answers: usualSentences(),
  fromModel: exampleTemplate(),
  fromFile: exampleTemplate(),
  version: exampleTemplate(),
  source: 'Example Standard',
  ...more,
})

describe('a beginning', () => {
  it.each(ways)('from %s is a sound template under its title and a key of its own', (way) => {
    const made = beginnings[way].template(material())
    expect(readDocument(Template, made)).toMatchObject({ ok: true })
    expect(made?.title).toBe('Harbour Standard')
    expect(material().taken.has(made?.key ?? 'new')).toBe(false)
  })
  it('that waits for something is none yet', () => {
    const empty = material({ fromModel: null, fromFile: null, version: null })
    expect(ways.filter((way) => beginnings[way].template(empty) === null)).toEqual([
      'model',
      'copy',
      'layer',
      'file',
    ])
  })
  it('as a copy stands alone, as a layer stands on its version', () => {
    expect(beginnings.copy.template(material())?.extends).toBeUndefined()
    expect(beginnings.layer.template(material())?.extends).toEqual({
      template: 'example-standard',
      version: 1,
    })
    const copied = beginnings.copy.template(material())
    expect(copied && everyPart(copied).length).toBe(everyPart(exampleTemplate()).length)
  })
  it('from a file keeps the key of the file while nobody else has it', () => {
    const made = beginnings.file.template(material({ taken: new Set() }))
    expect(made?.key).toBe('example-standard')
  })
  it('is called after what it comes from', () => {
    const from = { source: 'Harbour', fromFile: exampleTemplate() }
    expect(ways.map((way) => beginnings[way].title(from))).toEqual([
      'New standard',
      'New standard',
      'Harbour, copy',
      'Layer on Harbour',
      'New standard',
      'Example Standard',
    ])
    expect(beginnings.copy.title({ source: null, fromFile: null })).toBe('New standard')
  })
  it('is one that there is', () => {
    expect([isWay('model'), isWay('toString'), isWay(null)]).toEqual([true, false, false])
  })
})

describe('a template document handed in as a file', () => {
  it('is taken as it was handed out', () => {
    const { template, problems } = readTemplateFile(JSON.stringify(exampleTemplate()))
    expect(template).toEqual(exampleTemplate())
    expect(problems).toEqual([])
  })
  it.each([
    ['words', 'Dear all,', /^it is no JSON$/],
    ['nothing', '', /^it is no JSON$/],
    ['half a document', '{"schema":"wickerframe.template/1","key":"x"', /^it is no JSON$/],
    ['another document', '{"schema":"wickerframe.course/2"}', /^at \/\w*/],
    ['a list', '[]', /^at \/: found .*; expected /],
  ])('%s is refused with where and why', (_, text, said) => {
    const { template, problems } = readTemplateFile(text)
    expect(template).toBeNull()
    expect(problems[0]).toMatch(said)
    expect(problems.length).toBeLessThanOrEqual(8)
  })
})
