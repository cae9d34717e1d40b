import { filesLedToBy, isModule, leftAs } from '../../template/index.ts'
import { defineCheck, type Found } from '../remark.ts'

export const fileNone = defineCheck({
  id: 'file-none',
  severity: 'warning',
  title: 'What hands out a file has one, or asks for it',
  messages: {
    none: '“{part}” is to hand out a file, and has none: give it one, or ask the instructor for theirs.',
    'page-none':
      'The page offers the document “{title}”, and no file for it: give it one, or ask the instructor for theirs.',
    'page-gone': 'A link leads to a file that this template does not hold any more.',
    unread:
      'Whether “{part}” is filled in cannot be told: the text of its form “{file}” cannot be read.',
  },
  *find(proof): Generator<Found> {
    const { files } = proof.template
    for (const part of proof.parts) {
      if (isModule(part) || part.kind !== 'file') continue
      const { file, url, blocks } = part
      if (!file && url === undefined && blocks.length === 0)
        yield { part: part.key, message: 'none', values: { part: part.name } }
      const form = file?.left === 'theirs' ? files.find(({ key }) => key === file.key) : undefined
      if (form && form.words === undefined)
        yield {
          part: part.key,
          message: 'unread',
          values: { part: part.name, file: form.fileName },
        }
    }
    const held = new Set(files.map(({ key }) => key))
    for (const page of proof.pages)
      for (const block of page.blocks) {
        const told = { part: page.key, block: block.key }
        if (block.kind === 'document' && leftAs(block) !== 'asked' && block.files.length === 0)
          yield { ...told, message: 'page-none', values: { title: block.title } }
        if ([...filesLedToBy(block)].some((key) => !held.has(key)))
          yield { ...told, message: 'page-gone', severity: 'error' }
      }
  },
})
