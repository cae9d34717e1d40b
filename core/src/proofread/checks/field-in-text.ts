import { editDistance, fieldNames, isFieldName } from '../../naming/index.ts'
import { firstWords, wordsOfBlock } from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

/** Every field that a page may hold: those of names, and the reader’s first name. */
const known: readonly string[] = [...fieldNames, 'reader']
const isKnown = (name: string): boolean => isFieldName(name) || name === 'reader'

/** The field that was meant by a name that is none: written otherwise, or a letter or two away; null where none is near. */
const meant = (name: string): string | null => {
  const lower = name.toLowerCase()
  const [nearest] = known
    .map((field) => ({ field, cost: editDistance(lower, field.toLowerCase()) }))
    .sort((one, other) => one.cost - other.cost)
  return nearest && nearest.cost <= Math.min(2, Math.floor(lower.length / 3)) ? nearest.field : null
}

/** Names in braces, in order. Other braces, as of sets and of code, are none. */
const namesIn = (text: string): string[] =>
  [...text.matchAll(/\{\s*([A-Za-z]{2,20})\s*(?:,[^{}<>]{0,200})?\}/g)].map(([, name = '']) => name)

export const fieldInText = defineCheck({
  id: 'field-in-text',
  severity: 'warning',
  title: 'Fields within the texts of pages are written as they are called',
  messages: {
    near: '“{text}” says {name}, which is no field: students would read it so. Did you mean {field}?',
    prompt:
      'The prompt “{text}” says {name}: prompts say the same everywhere, so students would read it so.',
    house:
      'The house text “{title}” says {name}: house texts say the same in every course, so students would read it so.',
  },
  *find(proof): Generator<Found> {
    for (const page of proof.pages)
      for (const block of page.blocks)
        for (const words of wordsOfBlock(block) ?? []) {
          const text = 'html' in words ? words.html : words.text
          for (const name of new Set(namesIn(text))) {
            const field = isKnown(name) ? null : meant(name)
            if (field !== null)
              yield {
                part: page.key,
                block: block.key,
                message: 'near',
                values: { text: firstWords(text), name: `{${name}}`, field: `{${field}}` },
              }
          }
          if (block.kind === 'fill-in' && text === block.prompt)
            for (const name of new Set(namesIn(text).filter(isKnown)))
              yield {
                part: page.key,
                block: block.key,
                message: 'prompt',
                values: { text: firstWords(text), name: `{${name}}` },
              }
        }
    for (const { title, revisions } of proof.template.houseTexts)
      for (const name of new Set(namesIn(revisions.at(-1)?.html ?? '').filter(isKnown)))
        yield { part: null, message: 'house', values: { title, name: `{${name}}` } }
  },
})
