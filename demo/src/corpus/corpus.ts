import { type Course, type Facts, itemsIn, type Template } from '@wickerframe/core'
import { coastalNavigation, navigationProgramme } from '../layers.ts'
import { seededRandom } from '../random.ts'
import { factsOfRoster, makeRoster } from '../roster.ts'
import { demoTemplate } from '../templates.ts'
import { EditedCourse, type EditLevel, type Truth } from './editedCourse.ts'
import { editModel, groupIntoUnits, stripMarkers, type CourseEdit } from './editModel.ts'
import { otherEditModel, otherStrip } from './otherEditModel.ts'

export const identities = ['kept', 'partly lost', 'none'] as const
export type Identity = (typeof identities)[number]

export interface CorpusCase {
  name: string
  template: Template
  facts: Facts
  course: Course
  truth: Truth
  grouped: boolean
}

const editsOf: Readonly<Record<EditLevel, number>> = { light: 5, medium: 16, heavy: 40 }
const stripped: Readonly<Record<EditLevel, number>> = { light: 0.2, medium: 0.4, heavy: 0.6 }
const folded: Readonly<Record<EditLevel, number>> = { light: 0, medium: 0.05, heavy: 0.15 }

const models = {
  first: { edits: editModel, strip: stripMarkers },
  other: { edits: otherEditModel, strip: otherStrip },
} as const
export type ModelName = keyof typeof models

const drawn = (
  edits: readonly (readonly [CourseEdit, number])[],
  random: () => number,
): CourseEdit => {
  let left = random() * edits.reduce((sum, [, weight]) => sum + weight, 0)
  for (const [edit, weight] of edits) if ((left -= weight) < 0) return edit
  return () => {}
}

const takeIdentity = (course: Course, identity: Identity, random: () => number): void => {
  if (identity === 'kept') return
  for (const module of course.modules) {
    if (identity === 'none' || random() < 0.5) delete module.recordedAs
    for (const item of itemsIn(module))
      if (identity === 'none' || random() < 0.5) delete item.recordedAs
  }
  for (const item of course.stray) if (identity === 'none' || random() < 0.5) delete item.recordedAs
}

/**
 * Edited courses with their truth: the same for the same seed. Templates take turns (three of the college's and a layer),
 * and so do the courses of its roster.
 */
export const makeCorpus = (
  model: ModelName,
  level: EditLevel,
  identity: Identity,
  count: number,
  seed: number,
): CorpusCase[] => {
  const harbour = { ...demoTemplate('harbour-standard.json'), version: 1 }
  const nav110 = coastalNavigation({ ...navigationProgramme(harbour), version: 1 })
  const templates = [
    demoTemplate('harbour-standard.json'),
    demoTemplate('distance-standard.json'),
    demoTemplate('short-course-standard.json'),
    nav110,
  ]
  const roster = factsOfRoster(makeRoster(48)).map(({ facts }) => facts)
  return Array.from({ length: count }, (_, i) => {
    const random = seededRandom(seed * 7919 + i * 104_729)
    const template = templates[i % templates.length] ?? templates[0]
    const fitting = roster.filter(
      (facts) =>
        template &&
        (template.appliesTo.weeks.length === 0 || template.appliesTo.weeks.includes(facts.weeks)),
    )
    const facts = fitting[(i * 5) % fitting.length] ?? roster[0]
    if (!template || !facts) throw new Error('no template, or no course that fits it')
    const edited = new EditedCourse(`${model}-${level}-${seed}-${i}`, template, facts, seed + i)
    const grouped =
      model === 'first' &&
      template.parts.some((part) => part.kind === 'module' && part.groupings) &&
      random() < folded[level]
    if (grouped) groupIntoUnits(edited)
    const { edits, strip } = models[model]
    const many = Math.round(editsOf[level] * (facts.weeks / 16) * (0.7 + 0.6 * random()))
    for (let n = 0; n < many; n++) drawn(edits, random)(edited, random)
    edited.close()
    // A course that never saw a deployment has no marks in its pages either.
    if (random() < stripped[level] || identity === 'none') strip(edited)
    takeIdentity(edited.course, identity, random)
    return {
      name: `${edited.course.id}, identity ${identity}`,
      template,
      facts,
      course: edited.course,
      truth: edited.truth,
      grouped,
    }
  })
}
