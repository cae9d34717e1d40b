import { weightsTotal } from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const weightsAddUp = defineCheck({
  id: 'weights-total',
  severity: 'error',
  title: 'Weights of the grade categories come to 100',
  messages: { off: 'The weights come to {total}, not 100.' },
  *find({ template: { grading } }): Generator<Found> {
    const total = weightsTotal(grading)
    if (grading.weighted && grading.categories.length > 0 && total !== 100)
      yield { part: null, message: 'off', values: { total: String(total) } }
  },
})
