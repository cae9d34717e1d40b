import { everyObjective, outcomeCoverage } from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const outcomeUnassessed = defineCheck({
  id: 'outcome-unassessed',
  severity: 'warning',
  title: 'Outcomes are served by objectives and assessed by work',
  messages: {
    unassessed: 'No work assesses the course outcome “{text}”, directly or through an objective.',
    unserved: 'The objective “{text}” serves no course outcome.',
    nowhere: '“{item}” assesses {key}, which is no outcome or objective of this template.',
    loop: 'The objective “{text}” serves {key}, which is no outcome or wider objective of this template.',
  },
  *find(proof): Generator<Found> {
    const { template } = proof
    for (const { outcome, assessedBy } of outcomeCoverage(template))
      if (assessedBy.length === 0)
        yield {
          part: null,
          block: outcome.key,
          message: 'unassessed',
          values: { text: outcome.text },
        }
    const objectives = everyObjective(template)
    const keys = new Set(objectives.map((objective) => objective.key))
    for (const objective of objectives) {
      if (objective.of === 'course') continue
      if (template.outcomes.length > 0 && objective.serves.length === 0)
        yield {
          part: objective.part,
          block: objective.key,
          message: 'unserved',
          values: { text: objective.text },
        }
      for (const key of objective.serves)
        if (!keys.has(key))
          yield {
            part: objective.part,
            block: objective.key,
            message: 'loop',
            values: { text: objective.text, key },
          }
    }
    for (const part of proof.parts)
      if (part.kind !== 'module')
        for (const key of part.assesses)
          if (!keys.has(key))
            yield { part: part.key, message: 'nowhere', values: { item: part.name, key } }
  },
})
