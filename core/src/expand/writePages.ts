import { grouped } from '../grouped/index.ts'
import type { Week } from '../calendar/index.ts'
import type { Facts } from '../course/index.ts'
import { endOfBeside } from '../houseStyle/index.ts'
import {
  blockInPlace,
  isModule,
  type HouseText,
  type KeptBlockBody,
  type Template,
} from '../template/index.ts'
import { asDeployed } from './asDeployed.ts'
import { blockHtml, labelled, writingIn, type BlockSurroundings } from './blockHtml.ts'
import { moduleDates, scheduleLines, termDates } from './courseDates.ts'
import type { ExpectedBlock, ExpectedPart } from './expected.ts'
import { outcomeLines } from './outcomeLines.ts'
import { questionInCourse } from './questionInCourse.ts'

/** A house text whose revisions are written in the template's house style, at the block's place on its page. */
const houseTextIn = (
  template: Template,
  block: Extract<KeptBlockBody, { kind: 'house-text' }>,
  end: string,
): HouseText | null => {
  const found = template.houseTexts.find((text) => text.key === block.houseText)
  if (!found) return null
  if (template.houseStyle === undefined && !block.beside && end === '') return found
  return {
    ...found,
    revisions: found.revisions.map((revision) => ({
      ...revision,
      html: asDeployed(revision.html, block, template) + end,
    })),
  }
}

/** Fills the blocks and questions of every page, now that every part has its name and instance. */
export const writePages = (
  parts: readonly ExpectedPart[],
  template: Template,
  facts: Facts,
  weeks: readonly Week[],
): void => {
  const byKey = grouped(parts, (part) => part.key)
  const byInstance = new Map(parts.map((part) => [part.instance, part]))
  const link = (part: ExpectedPart) => ({ href: `ref:${part.instance}`, name: part.name })
  const siblings = (page: ExpectedPart): ExpectedPart[] =>
    (page.parent === null ? [] : (byInstance.get(page.parent)?.items ?? [])).filter(
      (item) => item !== page && item.audience === 'students' && item.kind !== 'heading',
    )
  for (const page of parts) {
    const definition = page.definition
    if (isModule(definition) || (definition.blocks.length === 0 && !definition.questions)) continue
    const surroundings: BlockSurroundings = {
      template,
      values: page.values,
      answers: facts.answers,
      instructors: facts.instructors,
      reader: facts.readerName ?? null,
      linkTo: (key) => {
        const candidates = byKey.get(key) ?? []
        // The copy that stands nearest: in the same repetition, the same module, the same week.
        const target =
          candidates.find((candidate) => candidate.repetition === page.repetition) ??
          candidates.find(
            (candidate) => candidate.parent !== null && candidate.parent === page.parent,
          ) ??
          (page.week
            ? candidates.find((candidate) =>
                candidate.weeks.some((week) => week.number === page.week?.number),
              )
            : undefined) ??
          candidates[0]
        return target ? link(target) : null
      },
      moduleLinks: () =>
        siblings(page)
          .filter(({ strength }) => strength !== 'may')
          .map(link),
      keyDates: (of) =>
        of === 'term'
          ? termDates(facts, weeks)
          : moduleDates([page, ...siblings(page)], facts.term.timeZone),
      schedule: () => scheduleLines(parts, facts),
      outcomes: () => outcomeLines(template, parts),
    }
    const writing = writingIn({ ...surroundings, reader: null }, null)
    page.questions = (definition.questions?.list ?? []).map((question) =>
      questionInCourse(question, writing, page.values),
    )
    const isBeside = definition.blocks.some(({ beside }) => beside)
    const last = definition.blocks.at(-1)
    page.blocks = definition.blocks.flatMap((written): ExpectedBlock[] => {
      const block = blockInPlace(written, template.keptBlocks)
      if (!block) return []
      const { html, answer, asks } = blockHtml(block, surroundings)
      const end = isBeside && written === last ? endOfBeside : ''
      return [
        {
          definition: labelled(block, surroundings),
          key: block.key,
          kind: block.kind,
          strength: block.strength,
          html: html + end,
          answer,
          asks,
          houseText:
            block.kind === 'house-text' && block.mode === 'copied'
              ? houseTextIn(template, block, end)
              : null,
        },
      ]
    })
  }
}
