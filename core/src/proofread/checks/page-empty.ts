import { isModule } from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const pageEmpty = defineCheck({
  id: 'page-empty',
  severity: 'warning',
  title: 'Pages hold something, modules too',
  messages: {
    page: 'The page “{part}” is empty: students of every course will open it and find nothing.',
    module: 'The module “{part}” holds nothing.',
  },
  *find(proof): Generator<Found> {
    for (const part of proof.parts) {
      if (
        isModule(part)
          ? part.items.length === 0 &&
            part.exceptions.every((exception) => exception.add.length === 0)
          : false
      )
        yield { part: part.key, message: 'module', values: { part: part.name } }
      else if (part.kind === 'page' && part.blocks.length === 0)
        yield { part: part.key, message: 'page', values: { part: part.name } }
    }
  },
})
