import { z } from 'zod'
import { oncePerPage } from '../../page/index.ts'
import { defineRule } from '../rule.ts'
import { pageFaults } from '../pageFaults.ts'

const colour = 'red|green|blue|orange|yellow|purple|pink|grey|gray'
const told =
  'items?|words?|text|questions?|tasks?|ones|lines?|entries|rows?|weeks?|dates?|pages?|chapters?|readings?|parts?|sections?|names?|those'
const marked = new RegExp(
  `\\b(?:(?:marked|shown|written|highlighted|printed|listed|given|set|appear|appears|are|is) in (?:${colour})|(?:${told}) in (?:${colour})|(?:the|all|every|any) (?:${colour}) (?:${told}))\\b`,
  'i',
)

const faultsIn = oncePerPage((page) =>
  page.paragraphs
    .filter((paragraph) => marked.test(paragraph.text))
    .map((paragraph) => paragraph.text),
)

export const colourAlone = defineRule({
  id: 'colour-alone',
  group: 'access',
  title: 'Nothing is told by colour alone',
  why: 'One in twelve men does not see which items “are in red”.',
  wcag: ['1.4.1'],
  untold:
    'Colours in a page that colours nothing itself: at sea red and green are words of the trade. Colours named in other languages than English are not known.',
  strength: 'should',
  parameters: z.strictObject({}),
  mender: 'instructor',
  effortMinutes: 3,
  messages: { colour: '“{item}” tells something by colour: “{seen}”{also}.' },
  check: (context) =>
    pageFaults(context, {
      // Words about colours are common at sea; only where the page itself colours text can it mean its own.
      applies: ({ page }) => page.coloured.length > 0,
      faults: ({ page }) => faultsIn(page),
      message: 'colour',
      expected: 'a word or mark beside the colour',
    }),
})
