import {
  firstWords,
  isModule,
  questionName,
  readersIn,
  wordsOfBlock,
} from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const readerWithoutWords = defineCheck({
  id: 'reader-without-words',
  severity: 'warning',
  title: 'Where a platform shows no first name of the reader, other words stand in its place',
  messages: {
    page: '“{text}” has nothing to say where a platform shows no first name. Write words for it, such as {example}.',
    question:
      'The question {question} speaks to its reader by name. Questions hold no names: write {example}, or leave it out.',
  },
  *find(proof): Generator<Found> {
    const example = '{reader, everybody}'
    for (const page of proof.pages)
      for (const block of page.blocks)
        for (const words of wordsOfBlock(block) ?? []) {
          const text = 'html' in words ? words.html : words.text
          if (readersIn(text).includes(null))
            yield {
              part: page.key,
              block: block.key,
              message: 'page',
              values: { text: firstWords(text), example },
            }
        }
    for (const part of proof.parts) {
      if (isModule(part)) continue
      for (const { body } of part.questions?.list ?? [])
        if (readersIn(body.text).includes(null))
          yield {
            part: part.key,
            message: 'question',
            values: { question: questionName(body), example },
          }
    }
  },
})
