import { describe, expect, it } from 'vitest'
import { Asset, ImageSet, refusedInDrawing, sizeMisfit } from '@wickerframe/core'
import { demoTemplate, drawings, drawingOf, drawingSets, templateFiles } from './index.ts'

describe('the drawings of the college', () => {
  it('are ten banners, twenty small ones and a portrait, each sound, described and harmless', () => {
    expect(drawings().filter(({ key }) => key.startsWith('banner-'))).toHaveLength(10)
    expect(drawings().filter(({ key }) => key.startsWith('small-'))).toHaveLength(20)
    for (const drawing of drawings()) {
      expect(Asset.parse(drawing)).toEqual(drawing)
      expect(refusedInDrawing(drawing.svg ?? '')).toEqual([])
    }
    expect(new Set(drawings().map(({ svg }) => svg)).size).toBe(drawings().length)
  })

  it('go together in sets, all of one size', () => {
    for (const set of drawingSets()) {
      expect(ImageSet.parse(set)).toEqual(set)
      for (const key of set.images) expect(sizeMisfit(drawingOf(key), set.size)).toBeNull()
    }
  })

  it('stand in the templates as they are drawn', () => {
    const shown = templateFiles.flatMap((file) => demoTemplate(file).assets)
    expect(shown.length).toBeGreaterThan(0)
    for (const asset of shown) expect(asset).toEqual(drawingOf(asset.key))
  })
})
