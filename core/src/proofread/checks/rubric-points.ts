import { rubricPoints } from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const rubricPointsAgree = defineCheck({
  id: 'rubric-points',
  severity: 'error',
  title: 'A rubric’s points come to those of the work',
  messages: {
    differ: '“{item}” gives {points} points, its rubric “{rubric}” {total}.',
    unpointed: '“{item}” has a rubric of {total} points, but no points of its own.',
  },
  *find(proof): Generator<Found> {
    const rubrics = new Map(proof.template.rubrics.map((rubric) => [rubric.key, rubric]))
    for (const part of proof.parts) {
      const rubric =
        part.settings.rubric === undefined ? undefined : rubrics.get(part.settings.rubric)
      if (!rubric) continue
      const total = rubricPoints(rubric)
      if (part.settings.points === undefined)
        yield {
          part: part.key,
          message: 'unpointed',
          values: { item: part.name, total: String(total) },
          severity: 'warning',
        }
      else if (part.settings.points !== total)
        yield {
          part: part.key,
          message: 'differ',
          values: {
            item: part.name,
            points: String(part.settings.points),
            rubric: rubric.title,
            total: String(total),
          },
        }
    }
  },
})
