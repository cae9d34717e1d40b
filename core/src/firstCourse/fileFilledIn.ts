import type { ExpectedFile, ExpectedPart } from '../expand/index.ts'
import { shownOf } from '../files/index.ts'
import { isModule } from '../template/index.ts'

/** The file of a part once a good instructor was there: a form is filled in, and a file of theirs is put where one is asked for. */
export const fileFilledIn = ({ definition, file, instance }: ExpectedPart): ExpectedFile | null => {
  if (isModule(definition) || definition.file?.left !== 'theirs') return file
  const { content } = shownOf({
    name: 'theirs',
    content: file?.content ?? '',
    fields: { by: instance },
  })
  return { name: file?.name ?? 'theirs.pdf', content, left: 'theirs', fields: null, words: null }
}
