import { houseFileTo, sentHandout, type FieldTexts, type WrittenFile } from '../files/index.ts'
import { formatOf, renderName, type FieldValues } from '../naming/index.ts'
import {
  fileOfPart,
  isKeptCurrent,
  type Item,
  type Template,
  type TemplateFile,
} from '../template/index.ts'

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

/** What a document with fields is filled with in one course; null for a file that goes out as it is. */
const fieldTexts = ({ fields }: TemplateFile, values: FieldValues): FieldTexts | null =>
  fields.length === 0
    ? null
    : Object.fromEntries(
        fields.map((field) => [field, renderName(formatOf(field), values).text] as const),
      )

/** The text of a file with its fields filled; null where it cannot be read as text. */
export const wordsFilled = (
  { words }: Pick<TemplateFile, 'words'>,
  texts: FieldTexts | null,
): string | null =>
  words === undefined
    ? null
    : Object.entries(texts ?? {}).reduce(
        (filled, [field, text]) => filled.replaceAll(field, () => text),
        words,
      )

/** The file of a part worked out for one course; null where it hands out none of the template's. */
export const fileForCourse = (
  item: Item,
  template: Template,
  values: FieldValues,
): ExpectedFile | null => {
  const file = fileOfPart(item, template)
  if (!file) return null
  const fields = fieldTexts(file, values)
  return {
    name: file.fileName,
    content: file.content,
    left: item.file?.left ?? null,
    fields,
    words: wordsFilled(file, fields),
  }
}

/** How a page of one course leads to a file of the template, until it is sent. */
export const handoutInCourse = (file: TemplateFile, values: FieldValues): string => {
  if (isKeptCurrent(file)) return houseFileTo(file.key)
  const fields = fieldTexts(file, values)
  return sentHandout({ name: file.fileName, content: file.content, ...(fields ? { fields } : {}) })
}

/** As it is written into the course. */
export const writtenFile = ({ name, content, fields }: ExpectedFile): WrittenFile => ({
  name,
  content,
  ...(fields ? { fields } : {}),
})
