import { everyObjective, type Template } from '@wickerframe/core'
import { ObjectiveLines } from '../ObjectiveLines.tsx'
import { HeadingField, type BlockEditing } from './editing.tsx'

/** What objectives of a page may serve: those of modules, and course outcomes. */
const widerOf = (template: Template) =>
  everyObjective(template).filter((objective) => objective.of !== 'page')

export const ObjectivesEditor = ({ block, template, set }: BlockEditing<'objectives'>) => (
  <div className="grid gap-2">
    <HeadingField label={block.label} set={set} />
    <ObjectiveLines
      objectives={block.objectives}
      prefix={block.key}
      wider={widerOf(template)}
      onDone={(objectives) => set('objectives', block.objectives, objectives)}
    />
  </div>
)
