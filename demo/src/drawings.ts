import { readFileSync } from 'node:fs'
import type { Asset, ImageSet } from '@wickerframe/core'

const licence = 'Drawn for Kestrel Sound Maritime College; free to use within the college'

/** A drawing of the college, and what is seen on it. */
type Described = readonly [key: string, alternativeText: string]

const banners: readonly Described[] = [
  ['evening-sail', 'A sailing boat on a calm sea, the evening sun behind it'],
  ['lighthouse', 'A lighthouse on a rock, its light over the water at night'],
  ['quay', 'Cranes at a quay and a ship laden with boxes'],
  ['chart-and-rose', 'A chart with a course laid out on it, and a compass rose'],
  ['tide-curve', 'The heights of the tide through two days, a new moon above them'],
  ['engine-room', 'Three gears that turn one another, a gauge and pipes'],
  ['rope-work', 'A rope laid in waves from a ring'],
  ['by-the-stars', 'Seven stars to steer by, over the sea at night'],
  ['lifebuoy', 'A lifebuoy on the water with its line'],
  ['weather', 'Sun, wind and a rain cloud over the sea'],
]

const small: readonly Described[] = [
  ['anchor', 'An anchor'],
  ['book', 'An open book'],
  ['buoy', 'A buoy on the water'],
  ['chart', 'A folded chart with a course on it'],
  ['checklist', 'A list with three ticks'],
  ['clock', 'A clock'],
  ['compass', 'A compass needle'],
  ['flag', 'A flag'],
  ['gear', 'A gear'],
  ['helm', 'A helm'],
  ['knot', 'A coil of rope'],
  ['lantern', 'A lantern'],
  ['letter', 'A letter'],
  ['lifebuoy', 'A lifebuoy'],
  ['light', 'A lighthouse'],
  ['oars', 'Two crossed oars'],
  ['sailing-boat', 'A sailing boat'],
  ['star', 'A star'],
  ['talk', 'Two people’s words'],
  ['tide', 'A tide gauge'],
]

const drawing = (file: string, key: string, alternativeText: string): Asset => ({
  key,
  fileName: `${key}.svg`,
  svg: readFileSync(new URL(`../drawings/${file}.svg`, import.meta.url), 'utf8').trim(),
  alternativeText,
  licence,
})

/** Every drawing of the college: ten banners, twenty small ones for cards, and a portrait that stands in for one. */
export const drawings = (): Asset[] => [
  ...banners.map(([key, seen]) => drawing(`banners/${key}`, `banner-${key}`, seen)),
  ...small.map(([key, seen]) => drawing(`small/${key}`, `small-${key}`, seen)),
  drawing('portrait', 'portrait', 'A portrait is to come'),
]

/** How the drawings go together in the library. */
export const drawingSets = (): ImageSet[] => [
  {
    key: 'banners',
    title: 'Banners',
    size: { width: 1200, height: 260 },
    images: banners.map(([key]) => `banner-${key}`),
  },
  {
    key: 'signs',
    title: 'Signs',
    size: { width: 64, height: 64 },
    images: small.map(([key]) => `small-${key}`),
  },
]

/** A drawing of the college. @throws for a key that none has */
export const drawingOf = (key: string): Asset => {
  const found = drawings().find((asset) => asset.key === key)
  if (!found) throw new Error(`there is no drawing ${key}`)
  return found
}
