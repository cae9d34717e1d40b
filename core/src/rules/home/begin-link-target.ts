import { z } from 'zod'
import { foldedName } from '../../naming/index.ts'
import type { PageLink } from '../../page/index.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const beginLinkTarget = defineRule({
  id: 'begin-link-target',
  group: 'home page',
  title: 'Where to begin leads to the opening module',
  why: 'The first link a new student follows must not end nowhere, or in last term’s course.',
  untold:
    'The words of the link: its place, its text and its target tell which it is, in any language. Further links beside it are the instructor’s own.',
  strength: 'must',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 2,
  messages: {
    target: 'Where to begin leads to {seen}, not to {wanted}.',
    none: 'Where to begin has no link.',
  },
  *check(context): Generator<Verdict> {
    const { home } = context.expected
    const block = home.blocks.find((block) => block.definition.element === 'where-to-begin')
    if (!block || block.definition.kind !== 'signposts') return
    const told = {
      subject: aboutPart(home),
      discriminator: block.key,
      strength: block.strength,
    } as const
    const there = context.itemFor(home)
    const page = there ? context.pageOf(there.item) : null
    const targets = block.definition.links.flatMap(
      (link) => context.parts.find((part) => part.key === link.to) ?? [],
    )
    const standing = targets.flatMap((part) => {
      const found = context.itemFor(part)
      return found ? [{ part, url: found.item.url, moduleId: found.module?.id }] : []
    })
    const reading = there && context.readingsOf(there)?.find((reading) => reading.block === block)
    if (!there || !page || reading?.state === 'missing') {
      yield { ...told, outcome: 'absent' }
      return
    }
    const leadsThere = ({ href }: PageLink): boolean =>
      standing.some(({ url }) => url !== null && (href === url || href.endsWith(url)))
    const isMarked = page.markers.includes(block.key)
    const inBlock = page.links.filter(({ block: marker, paragraph }) =>
      isMarked ? marker === block.key : reading?.paragraphs.includes(paragraph),
    )
    // Where neither a mark nor its words tell which of the page's words are the signpost, its text and its target do.
    const said = new Set(block.definition.links.map(({ text }) => foldedName(text)))
    const links =
      isMarked || inBlock.length > 0
        ? inBlock
        : page.links.filter((link) => said.has(foldedName(link.text)) || leadsThere(link))
    const failed = {
      ...told,
      outcome: 'failed',
      itemId: there.item.id,
      expected: targets.map((part) => part.name).join(', '),
    } as const
    if (links.length === 0)
      yield {
        ...failed,
        message: 'none',
        values: {},
        evidence: [{ kind: 'count', text: 'no link' }],
      }
    else if (standing.length === 0) yield { ...told, outcome: 'absent' }
    else if (links.some(leadsThere)) yield { ...told, outcome: 'passed' }
    else {
      const seen = links[0]?.href ?? ''
      yield {
        ...failed,
        message: 'target',
        values: { seen, wanted: standing.map(({ part }) => `“${part.name}”`).join(' or ') },
        evidence: [{ kind: 'value', text: seen }],
      }
    }
  },
})
