import { type Course, type Facts, itemsIn, type Template } from '@wickerframe/core'
import { coastalNavigation } from '../coastalNavigation.ts'
import { navigationProgramme } from '../layers.ts'
import { seededRandom } from '../random.ts'
import { factsOfRoster, makeRoster } from '../roster.ts'
import { demoTemplate } from '../templates.ts'
import { EditedCourse, type EditLevel, type Truth } from './editedCourse.ts'
import { editModel, groupIntoUnits, stripMarkers, type CourseEdit } from './editModel.ts'
import { factsThere, otherCollege } from './otherCollege.ts'
import { otherEditModel, otherStrip } from './otherEditModel.ts'
import { tellAnswersApart, thirdEditModel } from './thirdEditModel.ts'

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

/** Three of the college's templates and a layer. */
const ourTemplates = (): Template[] => {
  const harbour = { ...demoTemplate('harbour-standard.json'), version: 1 }
  return [
    demoTemplate('harbour-standard.json'),
    demoTemplate('distance-standard.json'),
    demoTemplate('short-course-standard.json'),
    coastalNavigation({ ...navigationProgramme(harbour), version: 1 }),
  ]
}

interface Model {
  edits: readonly (readonly [CourseEdit, number])[]
  strip: (edited: EditedCourse) => void
  templates: () => Template[]
  /** What a course of the roster becomes at the college of the model. */
  factsOf: (facts: Facts, template: Template, at: number) => Facts
  /** What is done to every course before its edits. */
  prepare: (edited: EditedCourse, random: () => number, level: EditLevel) => boolean
}
const asItIs = (facts: Facts): Facts => facts
const models = {
  first: {
    edits: editModel,
    strip: stripMarkers,
    templates: ourTemplates,
    factsOf: asItIs,
    prepare: (edited, random, level) => {
      const grouped =
        edited.template.parts.some((part) => part.kind === 'module' && part.groupings) &&
        random() < folded[level]
      if (grouped) groupIntoUnits(edited)
      return grouped
    },
  },
  other: {
    edits: otherEditModel,
    strip: otherStrip,
    templates: ourTemplates,
    factsOf: asItIs,
    prepare: () => false,
  },
  third: {
    edits: thirdEditModel,
    strip: otherStrip,
    templates: otherCollege,
    factsOf: factsThere,
    prepare: (edited) => {
      tellAnswersApart(edited)
      return false
    },
  },
} satisfies Record<string, Model>
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
 * Edited courses with their truth: the same for the same seed. The templates of the model's college take turns, and so do
 * the courses of the roster.
 */
export const makeCorpus = (
  model: ModelName,
  level: EditLevel,
  identity: Identity,
  count: number,
  seed: number,
): CorpusCase[] => {
  const { edits, strip, templates: templatesOf, factsOf, prepare } = models[model] as Model
  const templates = templatesOf()
  const roster = factsOfRoster(makeRoster(48)).map(({ facts }) => facts)
  return Array.from({ length: count }, (_, i) => {
    const random = seededRandom(seed * 7919 + i * 104_729)
    const template = templates[i % templates.length] ?? templates[0]
    const fitting = roster.filter(
      (facts) =>
        template &&
        (template.appliesTo.weeks.length === 0 || template.appliesTo.weeks.includes(facts.weeks)),
    )
    const taken = fitting[(i * 5) % fitting.length] ?? roster[0]
    if (!template || !taken) throw new Error('no template, or no course that fits it')
    const facts = factsOf(taken, template, i)
    const edited = new EditedCourse(`${model}-${level}-${seed}-${i}`, template, facts, seed + i)
    const grouped = prepare(edited, random, level)
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
