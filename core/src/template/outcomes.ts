import { isModule, type Item } from './part.ts'
import { everyItem, everyPart, homePageKey, type Template } from './template.ts'
import { blockInPlace, type Objective } from './block.ts'

/** Where an objective stands: among the course outcomes, on a module, or in an objectives block of a page. */
export interface PlacedObjective extends Objective {
  of: 'course' | 'module' | 'page'
  /** Key of the module or page; null for a course outcome. */
  part: string | null
}

/** Objectives of a page. Those of a kept block count where it is shown first. */
const pageObjectives = (
  part: string,
  blocks: Template['home']['blocks'],
  template: Template,
  shown: Set<string>,
): PlacedObjective[] =>
  blocks.flatMap((block) => {
    if (block.kind === 'kept-block') {
      if (shown.has(block.kept)) return []
      shown.add(block.kept)
    }
    const placed = blockInPlace(block, template.keptBlocks)
    return placed?.kind === 'objectives'
      ? placed.objectives.map((objective): PlacedObjective => ({ ...objective, of: 'page', part }))
      : []
  })

/** Every course outcome and objective, wider ones first. */
export const everyObjective = (template: Template): PlacedObjective[] => {
  const shown = new Set<string>()
  return [
    ...template.outcomes.map((outcome): PlacedObjective => ({
      ...outcome,
      serves: [],
      of: 'course',
      part: null,
    })),
    ...everyPart(template)
      .filter(isModule)
      .flatMap((module) =>
        module.objectives.map((objective): PlacedObjective => ({
          ...objective,
          of: 'module',
          part: module.key,
        })),
      ),
    ...pageObjectives(homePageKey, template.home.blocks, template, shown),
    ...everyItem(template).flatMap((item) =>
      pageObjectives(item.key, item.blocks, template, shown),
    ),
  ]
}

export interface OutcomeCoverage {
  outcome: { key: string; text: string }
  /** Module and page objectives that serve it, at any remove. */
  objectives: PlacedObjective[]
  /** Parts that assess it or an objective serving it. */
  assessedBy: Item[]
}

/** Keys of the objectives that serve an outcome or another objective, at any remove. */
export const objectivesServing = (template: Template, key: string): string[] =>
  serving(everyObjective(template), key).map((objective) => objective.key)

const serving = (
  objectives: readonly PlacedObjective[],
  key: string,
  seen: Set<string> = new Set([key]),
): PlacedObjective[] =>
  objectives
    .filter((objective) => objective.serves.includes(key) && !seen.has(objective.key))
    .flatMap((objective) => {
      seen.add(objective.key)
      return [objective, ...serving(objectives, objective.key, seen)]
    })

/** For each course outcome, which objectives serve it and which items assess it, directly or through an objective. */
export const outcomeCoverage = (template: Template): OutcomeCoverage[] => {
  const objectives = everyObjective(template)
  return template.outcomes.map((outcome) => {
    const served = serving(objectives, outcome.key)
    const keys = new Set([outcome.key, ...served.map(({ key }) => key)])
    return {
      outcome,
      objectives: served,
      assessedBy: everyItem(template).filter((item) => item.assesses.some((key) => keys.has(key))),
    }
  })
}
