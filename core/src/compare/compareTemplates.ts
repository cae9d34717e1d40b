import { homePageKey, type Template } from '../template/index.ts'
import { compareFields, tellingOf, type TemplateChange } from './change.ts'
import { calledIn } from './called.ts'
import { compareBlocks } from './compareBlocks.ts'
import { compareLists, comparePolicies } from './compareLists.ts'
import { compareParts } from './compareParts.ts'

const templateFields = [
  'title',
  'summary',
  'appliesTo',
  'units',
  'opening',
  'availability',
  'halfBuilt',
  'frameHosts',
  'extends',
] as const

/** Compares two versions of a template: what a reader would say changed, part by part, with the text itself. */
export const compareTemplates = (before: Template, after: Template): TemplateChange[] => {
  const changes: TemplateChange[] = []
  const telling = tellingOf(changes)
  const ofTemplate = telling(null, after.title)
  const ofHome = telling(homePageKey, 'the home page')
  const set = (words: string) => ofTemplate('field-set', words)
  const called = { before: calledIn(before), after: calledIn(after) }
  const settings = Object.keys({ ...before.settings, ...after.settings })
  compareFields(before, after, templateFields, called, set)
  compareFields(before.naming, after.naming, ['courseName', 'courseLabel'], called, set)
  compareFields(before.settings, after.settings, settings, called, set)
  const [style, styleNow] = [before.houseStyle, after.houseStyle]
  if (style && styleNow) {
    compareFields(style, styleNow, ['headings', 'rules', 'corners'], called, set)
    compareFields(style.colours, styleNow.colours, Object.keys(style.colours), called, set)
  } else compareFields(before, after, ['houseStyle'], called, set)
  compareFields(before.grading, after.grading, ['weighted', 'shown'], called, set)
  compareFields(before.home, after.home, ['name', 'strength', 'basis'], called, (words) =>
    ofHome('field-set', words),
  )
  compareBlocks(before.home.blocks, after.home.blocks, called, ofHome)
  compareParts(before, after, called, telling)
  compareLists(before, after, called, ofTemplate)
  comparePolicies(before.policies, after.policies, called, ofTemplate)
  return changes
}
