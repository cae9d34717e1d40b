import { z } from 'zod'
import type { Change } from '../../course/index.ts'
import { isFixedText } from '../../template/index.ts'
import { repointed } from '../links/repointed.ts'
import { defineRule, type Verdict } from '../rule.ts'
import { leadsThere, linksNow, linksWanted, whereLinkLeads } from './linksToFiles.ts'

export const pageFileAltered = defineRule({
  id: 'page-file-altered',
  group: 'files',
  title: 'Files that pages lead to are the ones that were given out',
  why: 'The page promises the study planner, and opens the one of another course or of last year.',
  untold:
    'What a file is called. A link that leads to nothing, or into another course, and words that were changed or taken out, are told by other rules. A document with fields is compared by its words.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'designer',
  effortMinutes: 2,
  messages: {
    altered: 'In “{item}” the link “{link}” leads to {seen}, not to the file of the template.',
    unlinked: '“{item}” says “{link}”, and no link leads to that file any more.',
  },
  *check(context): Generator<Verdict> {
    for (const placed of context.blocks()) {
      const { block, told, stands } = placed
      if (!/href="(?:handout|house-file):/.test(block.html) || !isFixedText(block.definition))
        continue
      for (const [i, wanted] of linksWanted(block.html).entries()) {
        const about = { ...told, discriminator: `${block.key}/${i}` }
        if (!stands) {
          yield { ...about, outcome: 'absent' }
          continue
        }
        const { there, reading } = stands
        const links = linksNow(wanted, placed, context)
        const judged = links.map((link) => leadsThere(link, wanted, context))
        const failed = {
          ...about,
          outcome: 'failed',
          expected: wanted.file?.name ?? 'the newest of the library',
          itemId: there.item.id,
          together: `${placed.part.key}/${block.key}/${i}`,
        } as const
        const untold = judged.find((how) => typeof how === 'object')
        if (judged.includes('yes')) yield { ...about, outcome: 'passed' }
        else if (untold)
          yield { ...about, outcome: 'cannot-tell', reason: untold.untold, itemId: there.item.id }
        else if (judged.includes('no')) {
          const link = links[judged.indexOf('no')]
          const seen = link ? whereLinkLeads(link.href, context) : ''
          yield {
            ...failed,
            message: 'altered',
            values: { item: there.item.name, link: wanted.text, seen },
            evidence: [{ kind: 'value', text: seen }],
          }
        } else if (links.length === 0 && reading.text.includes(wanted.text))
          yield {
            ...failed,
            message: 'unlinked',
            values: { item: there.item.name, link: wanted.text },
            evidence: [{ kind: 'words', text: wanted.text }],
          }
        else yield { ...about, outcome: 'inapplicable' }
      }
    }
  },
  mend(verdict, context): Change[] {
    const [key, i] = verdict.discriminator?.split('/') ?? []
    const part = verdict.subject.about === 'part' ? verdict.subject.part : null
    const placed = context.blocks().find((one) => one.part === part && one.block.key === key)
    const wanted = placed && linksWanted(placed.block.html)[Number(i)]
    const item = placed?.stands?.there.item
    if (!wanted || !item || item.html === null) return []
    const all = context.pageOf(item)?.links ?? []
    let { html } = item
    for (const link of linksNow(wanted, placed, context)) {
      // One address under two names would be led to one of them.
      const isOfOne = all.every(({ href, text }) => href !== link.href || text === link.text)
      if (leadsThere(link, wanted, context) === 'no' && isOfOne)
        html = repointed(html, link.href, wanted.address) ?? html
    }
    return html === item.html ? [] : [{ change: 'set-item', id: item.id, fields: { html } }]
  },
})
