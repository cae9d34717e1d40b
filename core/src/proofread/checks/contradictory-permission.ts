import { isFixedText } from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const contradictoryPermission = defineCheck({
  id: 'contradictory-permission',
  severity: 'error',
  title: 'What binds and what is allowed agree',
  messages: {
    removable: '“{part}” is a must, yet instructors may remove it.',
    editable: 'Instructors may edit “{part}”, yet it holds fixed text that must stand as it is.',
    off: 'The template sets the rule {rule} off and gives it a strength.',
  },
  *find(proof): Generator<Found> {
    for (const part of proof.parts) {
      if (part.strength === 'must' && part.may.remove)
        yield { part: part.key, message: 'removable', values: { part: part.name } }
      if (
        part.may.edit &&
        part.kind !== 'module' &&
        part.blocks.some((block) => isFixedText(block) && block.strength === 'must')
      )
        yield {
          part: part.key,
          message: 'editable',
          values: { part: part.name },
          severity: 'warning',
        }
    }
    for (const policy of proof.template.policies)
      if (policy.off && policy.strength)
        yield { part: null, block: policy.rule, message: 'off', values: { rule: policy.rule } }
  },
})
