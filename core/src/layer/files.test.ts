import { describe, expect, it } from 'vitest'
import { everyItem, type ItemFile, type Template } from '../template/index.ts'
import { exampleFile, templateHandingOut } from '../testing/exampleFiles.testing.ts'
import { newLayer, takeOver, weakenings } from './index.ts'

const above = (change?: (template: Template) => void): Template => ({
  ...templateHandingOut(change),
  version: 1,
})
const setFile =
  (key: string, file: ItemFile | undefined) =>
  (template: Template): void => {
    for (const item of everyItem(template)) if (item.key === key) item.file = file
  }
/** The layer, with a file of its own for one part. */
const layerWith = (key: string, file: ItemFile | undefined): Template => {
  const layer = structuredClone(newLayer(above(), 'layer', 'A layer'))
  layer.files.push(exampleFile('own', 50))
  setFile(key, file)(layer)
  return layer
}
const fileIn = (template: Template, key: string): ItemFile | undefined =>
  everyItem(template).find((item) => item.key === key)?.file

describe('a layer', () => {
  it.each<[string, ItemFile | undefined]>([
    ['given-timetable', { key: 'own' }],
    ['given-timetable', { key: 'given-timetable', left: 'proposed' }],
    ['given-timetable', undefined],
    ['given-slides', undefined],
  ])('does not take the file of %s away, or give out another: %j', (key, file) => {
    expect(weakenings(above(), layerWith(key, file)).map(({ path }) => path)).toEqual([
      expect.stringContaining('/file'),
    ])
  })
  it.each<[string, ItemFile]>([
    ['given-slides', { key: 'own' }],
    ['given-form', { key: 'own', left: 'theirs' }],
    ['asked-picture', { key: 'own' }],
  ])('may put one in the place of what is left to others: %s', (key, file) => {
    expect(weakenings(above(), layerWith(key, file))).toEqual([])
  })
  it('does not lose a file of the layer above', () => {
    const layer = layerWith('given-slides', { key: 'own' })
    layer.files = layer.files.filter(({ key }) => key !== 'given-slides')
    expect(weakenings(above(), layer)).toHaveLength(1)
  })
})

describe('taking over a newer version', () => {
  it('brings its files, and keeps what the layer put in their place where that is still left to it', () => {
    const layer = layerWith('given-slides', { key: 'own' })
    const newer = above((template) => {
      template.files = template.files.map((file) =>
        file.key === 'given-timetable' ? exampleFile('given-timetable', 60) : file,
      )
    })
    const { template, notes } = takeOver(above(), newer, layer)
    expect(fileIn(template, 'given-slides')).toEqual({ key: 'own' })
    expect(template.files.find(({ key }) => key === 'given-timetable')?.fileName).toBe(
      'handout 60.docx',
    )
    expect(template.files.map(({ key }) => key)).toContain('own')
    expect(notes).toEqual([])
  })
  it('tells where the newer version gives out one for all', () => {
    const layer = layerWith('given-slides', { key: 'own' })
    const { template, notes } = takeOver(
      above(),
      above(setFile('given-slides', { key: 'given-timetable' })),
      layer,
    )
    expect(fileIn(template, 'given-slides')).toEqual({ key: 'given-timetable' })
    expect(notes).toEqual([{ code: 'answer-overruled', part: 'given-slides', what: 'file' }])
  })
})
