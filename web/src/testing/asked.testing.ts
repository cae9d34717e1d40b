import type { AskedOfCourse } from '@wickerframe/contract'

type Page = AskedOfCourse['pages'][number]
type Thing = Page['things'][number]

/** Something that a page asks. */
export const askedThing = (says: string, more: Partial<Thing> = {}): Thing => ({
  block: `block of ${says}`,
  title: 'A title',
  type: 'text',
  strength: 'must',
  within: null,
  hint: null,
  example: null,
  forCourse: false,
  pieces: [{ says, nth: 0, mayGo: false }],
  ...more,
})

/** A page that asks this, named by its item. */
export const askingPage = (item: string, things: Thing[], more: Partial<Page> = {}): Page => ({
  item,
  name: item,
  url: `https://platform.example/${item}`,
  week: null,
  neededBy: '2026-08-31',
  things,
  ...more,
})
