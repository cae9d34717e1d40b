import type { FieldTexts, WrittenFile } from '../files/index.ts'
import { formatOf, renderName, type FieldValues } from '../naming/index.ts'
import { fileOfPart, type Item, type Template } from '../template/index.ts'

/** The file that a part hands out in one course. */
export interface ExpectedFile {
  name: string
  content: string
  /** How it is left to the instructor; null: it stands as it is. */
  left: 'proposed' | 'theirs' | null
  /** What a document with fields is filled with; null: it goes out as it is. */
  fields: FieldTexts | null
  /** Its text as this course gets it; null where it cannot be read as text. */
  words: string | null
}

/** The file of a part worked out for one course; null where it hands out none of the template's. */
export const fileForCourse = (
  item: Item,
  template: Template,
  values: FieldValues,
): ExpectedFile | null => {
  const file = fileOfPart(item, template)
  if (!file) return null
  const filled = file.fields.map(
    (field) => [field, renderName(formatOf(field), values).text] as const,
  )
  return {
    name: file.fileName,
    content: file.content,
    left: item.file?.left ?? null,
    fields: filled.length > 0 ? Object.fromEntries(filled) : null,
    words:
      file.words === undefined
        ? null
        : filled.reduce((words, [field, text]) => words.replaceAll(field, () => text), file.words),
  }
}

/** As it is written into the course. */
export const writtenFile = ({ name, content, fields }: ExpectedFile): WrittenFile => ({
  name,
  content,
  ...(fields ? { fields } : {}),
})
