import { aKind, repeatWords } from '../template/index.ts'
import { readDocument, type Problem, type Result } from '../document/index.ts'
import { type CourseItem, type CourseModule, isShown, itemsIn, modulesIn } from '../course/index.ts'
import { parseFormat } from '../naming/index.ts'
import { bestFormat, literalFormat } from './bestFormat.ts'
import { courseValues } from '../expand/index.ts'
import {
  freshKey,
  homePageKey,
  newItem,
  newModule,
  Template,
  type Anchor,
  type Block,
  type Exception,
  type Item,
  type Module,
  type Part,
} from '../template/index.ts'
import type { PageStretch } from './pageShape.ts'
import { onceChunks, workListMark, type ModelReading, type ReadSlot } from './readModel.ts'

/** Something the model course suggests, to be accepted or refused. */
export interface ModelProposal {
  /** Stable for the same reading: `repeat`, `format:KEY`, `text:KEY/BLOCK`, `different:KEY`, `part:KEY`. */
  id: string
  about: 'repeat' | 'part' | 'format' | 'fixed-text' | 'fill-in' | 'different'
  /** Key of the part it would become. */
  part: string
  words: string
  /** What of the course bears it out, in words. */
  evidence: string
  /** Share of what was seen that bears it out, 0 to 1; below one half it is offered refused. */
  support: number
}

export interface ModelTemplate {
  template: Template
  proposals: ModelProposal[]
}

const short = (text: string, most = 90): string =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text
const plainOf = (html: string): string =>
  html
    .replace(/<\/(li|p|tr|h\d)>/g, ' ')
    .replace(/<[^>]+>/g, '')
    .replace(/\s+/g, ' ')
    .trim()
const saysGuidance = /^note to (?:the )?instructors?\b[.:]?/i
const percent = (share: number): string => `${Math.round(share * 100)} in a hundred`
const isFormat = (text: string): boolean => text.trim() !== '' && parseFormat(text).ok

/** A file in a hidden place, or hidden itself, never leaves its course: it may be about a student. */
const mayLeave = (item: CourseItem, module: CourseModule): boolean =>
  item.kind !== 'file' || (isShown(item) && isShown(module))

/**
 * Makes the template that a model course suggests, and the proposals it rests on.
 * @param refused ids of proposals that were refused: a repeat refused leaves the modules as they stand, a format the
 * first name as it stands; a fixed text refused is left to the instructor, a fill-in refused stands as in the first
 * repetition; what is different in one repetition, or a part, is left out.
 * @returns the problems where it comes to no valid template
 */
export const templateFromModel = (
  reading: ModelReading,
  named: { key: string; title: string },
  refused: ReadonlySet<string> = new Set(),
): Result<ModelTemplate, Problem[]> => {
  const proposals: ModelProposal[] = []
  const taken = new Set<string>([homePageKey])
  const keyFor = (name: string) => {
    const key = freshKey(name, taken)
    taken.add(key)
    return key
  }
  const propose = (proposal: ModelProposal): boolean => {
    proposals.push(proposal)
    return !refused.has(proposal.id)
  }
  const { course, facts, group } = reading

  const blocksOf = (key: string, stretches: readonly PageStretch[], per: string): Block[] => {
    const blocks: Block[] = []
    const blockKeys = new Set<string>()
    const skipped = new Set<PageStretch>()
    const blockKey = (name: string) => {
      const fresh = freshKey(name, blockKeys)
      blockKeys.add(fresh)
      return fresh
    }
    const fillIn = (stretch: PageStretch): Block => ({
      kind: 'fill-in',
      key: blockKey(stretch.label || 'fill-in'),
      strength: stretch.support >= 0.8 ? 'must' : 'should',
      scope: 'place',
      earlierPrompts: [],
      type: stretch.kind,
      ...(stretch.label ? { label: short(stretch.label, 200) } : {}),
      prompt: short(
        stretch.html ||
          `What stands here in each ${per}${stretch.examples[0] ? `, such as “${short(stretch.examples[0], 80)}”` : ''}.`,
        1000,
      ),
    })
    for (const [i, stretch] of stretches.entries()) {
      const next = stretches[i + 1]
      // The heading over a work list is the list’s own label.
      if (stretch.what === 'fixed' && stretch.level !== null && next?.html === workListMark)
        continue
      if (stretch.html === workListMark) {
        const over = stretches[i - 1]
        blocks.push({
          kind: 'work-list',
          key: blockKey('work-list'),
          strength: 'should',
          label:
            stretch.label ||
            (over?.level !== null && over?.level !== undefined ? plainOf(over.html) : 'To do'),
        })
        continue
      }
      if (stretch.what === 'fixed' && saysGuidance.test(plainOf(stretch.html))) {
        const alone = plainOf(stretch.html).replace(saysGuidance, '').trim() === ''
        if (alone && next?.what === 'fixed' && next.level === null) skipped.add(next)
        const html = alone && next ? next.html : stretch.html
        const id = blockKey('guidance')
        if (
          propose({
            id: `text:${key}/${id}`,
            about: 'fixed-text',
            part: key,
            words: `guidance to the instructor “${short(plainOf(html))}”`,
            evidence: 'it is marked as a note to the instructor',
            support: stretch.support,
          })
        )
          blocks.push({ kind: 'guidance-note', key: id, strength: 'must', html })
        continue
      }
      if (skipped.has(stretch)) continue
      if (stretch.what === 'varies') {
        const block = fillIn(stretch)
        const accepted = propose({
          id: `text:${key}/${block.key}`,
          about: 'fill-in',
          part: key,
          words: `to fill in${stretch.label ? `, under “${stretch.label}”` : ''}${stretch.html ? `: “${short(stretch.html)}”` : ''}`,
          evidence:
            stretch.examples.length > 0
              ? `it differs: ${stretch.examples.map((example) => `“${short(example, 60)}”`).join(', ')}`
              : 'it stands unfilled',
          support: stretch.support,
        })
        if (accepted) blocks.push(block)
        else if (stretch.examples[0])
          blocks.push({
            kind: 'fixed-text',
            key: block.key,
            strength: 'should',
            html: `<p>${stretch.examples[0].replaceAll('&', '&amp;').replaceAll('<', '&lt;')}</p>`,
          })
        continue
      }
      const text = plainOf(stretch.html)
      if (stretch.level !== null && stretch.level <= 2 && blocks.length === 0 && isFormat(text)) {
        blocks.push({ kind: 'title', key: blockKey('title'), strength: 'must', text })
        continue
      }
      const id = blockKey('text')
      const accepted = propose({
        id: `text:${key}/${id}`,
        about: 'fixed-text',
        part: key,
        words: `fixed text “${short(text)}”`,
        evidence: `it recurs word for word in ${percent(stretch.support)}`,
        support: stretch.support,
      })
      if (!accepted) {
        blocks.push({
          kind: 'fill-in',
          key: id,
          strength: 'should',
          type: 'rich-text',
          scope: 'place',
          earlierPrompts: [],
          prompt: short(text || 'What should stand here?', 1000),
        })
        continue
      }
      const previous = blocks.at(-1)
      if (previous?.kind === 'fixed-text' && !refused.has(`text:${key}/${previous.key}`))
        previous.html += stretch.html
      else blocks.push({ kind: 'fixed-text', key: id, strength: 'must', html: stretch.html })
    }
    return blocks
  }
  /** A page that stands once: its wording as it is, by headings. */
  const onceBlocks = (item: CourseItem): Block[] => {
    const blocks: Block[] = []
    const blockKeys = new Set<string>()
    for (const chunk of onceChunks(item, facts)) {
      const previous = blocks.at(-1)
      if (chunk.level !== null && chunk.level <= 2 && blocks.length === 0 && isFormat(chunk.text))
        blocks.push({ kind: 'title', key: 'title', strength: 'must', text: chunk.text })
      else if (previous?.kind === 'fixed-text' && chunk.level === null) previous.html += chunk.html
      else {
        const key = freshKey(chunk.level === null ? 'text' : chunk.text, blockKeys)
        blockKeys.add(key)
        blocks.push({ kind: 'fixed-text', key, strength: 'must', html: chunk.html })
      }
    }
    return blocks
  }
  const onceName = (name: string): string =>
    bestFormat([{ name, values: courseValues(facts) }], facts.term.firstDay).format ||
    literalFormat(name)
  const settingsOf = (one: { points: number | null; category: string | null }) => ({
    ...(one.points === null ? {} : { points: one.points }),
    ...(one.category === null ? {} : { category: one.category }),
  })
  const onceItem = (item: CourseItem): Item => ({
    ...newItem(item.kind, keyFor(item.name), onceName(item.name)),
    blocks: onceBlocks(item),
    settings: settingsOf(item),
    audience: isShown(item) ? 'students' : 'staff',
    ...(item.target ? { url: item.target } : {}),
  })
  const onceModule = (module: CourseModule): Module => ({
    ...newModule(keyFor(module.name), onceName(module.name)),
    span: 'course',
    items: [
      ...itemsIn(module)
        .filter((item) => mayLeave(item, module))
        .map(onceItem),
      ...modulesIn(module).map(onceModule),
    ],
  })

  const slotPart = (slot: ReadSlot, per: string): Item => {
    const [firstName = slot.kind] = [...slot.items.values()].map((item) => item.name)
    const key = keyFor(slot.format.format || slot.kind)
    const named = propose({
      id: `format:${key}`,
      about: 'format',
      part: key,
      words: `named “${slot.format.format}”`,
      evidence:
        slot.format.leftOut.length === 0
          ? `all ${slot.items.size} names follow`
          : `${percent(slot.format.share)} follow; not “${slot.format.leftOut
              .slice(0, 3)
              .map((one) => short(one, 40))
              .join('”, “')}”`,
      support: slot.format.share,
    })
    const repeat = slot.rule?.repeat ? { per: 'week' as const, ...slot.rule.repeat } : undefined
    return {
      ...newItem(slot.kind, key, named ? slot.format.format : literalFormat(firstName)),
      strength: (slot.rule?.agreement ?? 1) >= 0.9 ? 'must' : 'should',
      ...(repeat ? { repeat } : {}),
      ...(slot.comesLast ? { position: 'last' as const } : {}),
      settings: { ...settingsOf(slot), ...(slot.due ? { due: slot.due } : {}) },
      audience: slot.hidden ? 'staff' : 'students',
      inGroup: 'per-week',
      blocks: blocksOf(key, slot.page, per),
      ...([...slot.items.values()][0]?.target
        ? { url: [...slot.items.values()][0]?.target ?? '' }
        : {}),
    }
  }

  const parts: Part[] = []
  const place = group?.repetitions[0]?.module
  const repeatAccepted =
    group !== null &&
    propose({
      id: 'repeat',
      about: 'repeat',
      part: 'learning',
      words: `${group.repetitions.length} modules are one, repeated each ${group.per}`,
      evidence: `“${short(group.repetitions[0]?.module.name ?? '', 50)}” to “${short(group.repetitions.at(-1)?.module.name ?? '', 50)}”${group.byStructure > 0 ? `; ${group.byStructure} by what they hold` : ''}`,
      support: Math.min(1, group.repetitions.length / 6),
    })
  const learning = (): Module => {
    const per = group?.per ?? 'week'
    const key = keyFor('learning')
    const format = reading.moduleFormat?.format ?? ''
    const named = propose({
      id: `format:${key}`,
      about: 'format',
      part: key,
      words: `named “${format}”`,
      evidence:
        (reading.moduleFormat?.leftOut.length ?? 0) === 0
          ? 'all names follow'
          : `${percent(reading.moduleFormat?.share ?? 0)} follow; not “${reading.moduleFormat?.leftOut
              .slice(0, 3)
              .map((one) => short(one, 40))
              .join('”, “')}”`,
      support: reading.moduleFormat?.share ?? 0,
    })
    const numbers = group?.repetitions.map((repetition) => repetition.number) ?? []
    const exceptions = new Map<string, Exception>()
    const exceptionAt = (number: number): Exception => {
      const anchor: Anchor = reading.pauses.includes(number)
        ? { at: 'pause' }
        : number === numbers[0]
          ? { at: 'first' }
          : number === numbers.at(-1)
            ? { at: 'last' }
            : { at: 'number', number }
      const id = JSON.stringify(anchor)
      let exception = exceptions.get(id)
      if (!exception)
        exceptions.set(
          id,
          (exception = {
            key: keyFor(`${key}-${anchor.at === 'number' ? number : anchor.at}`),
            anchor,
            omit: false,
            leaveOut: anchor.at === 'pause' ? 'all' : [],
            set: [],
            add: [],
          }),
        )
      return exception
    }
    const items: Part[] = []
    for (const slot of reading.slots) {
      if (slot.rule) {
        if (slot.kind === 'file' && slot.hidden) continue
        const part = slotPart(slot, per)
        const words = slot.rule.repeat
          ? repeatWords({ per, ...slot.rule.repeat })
          : `in each ${per}`
        if (
          propose({
            id: `part:${part.key}`,
            about: 'part',
            part: part.key,
            words: `“${short(part.name, 60)}”: ${aKind(part.kind)}, ${words}`,
            evidence: `found in ${slot.items.size} of ${numbers.length - reading.pauses.length}`,
            support: slot.rule.agreement,
          })
        )
          items.push(part)
        continue
      }
      for (const [number, item] of slot.items) {
        const module = group?.repetitions.find((repetition) => repetition.number === number)?.module
        if (module && !mayLeave(item, module)) continue
        const exception = exceptionAt(number)
        const added = onceItem(item)
        if (
          propose({
            id: `different:${added.key}`,
            about: 'different',
            part: added.key,
            words: `only in ${per} ${number}: “${short(item.name, 60)}”`,
            evidence: 'no other repetition has it',
            support: numbers.length >= 6 ? 0.6 : 0.4,
          })
        )
          exception.add.push(added)
      }
    }
    for (const number of reading.pauses) {
      const module = group?.repetitions.find((repetition) => repetition.number === number)?.module
      for (const item of (module ? itemsIn(module) : []).filter(
        (one) => module && mayLeave(one, module),
      )) {
        const exception = exceptionAt(number)
        const added = onceItem(item)
        if (
          propose({
            id: `different:${added.key}`,
            about: 'different',
            part: added.key,
            words: `in the pause only: “${short(item.name, 60)}”`,
            evidence: `${per} ${number} is a break`,
            support: 0.8,
          })
        )
          exception.add.push(added)
      }
    }
    return {
      ...newModule(
        key,
        named ? format : literalFormat(group?.repetitions[0]?.module.name ?? 'Module'),
      ),
      repeat: { per, every: 1, except: [] },
      items,
      exceptions: [...exceptions.values()].filter((exception) => exception.add.length > 0),
    }
  }
  let placed = false
  for (const module of course.modules) {
    if (reading.once.includes(module)) parts.push(onceModule(module))
    else if (!repeatAccepted) parts.push(onceModule(module))
    else if (module === place || !placed) {
      if (!placed) parts.push(learning())
      placed = true
    }
  }
  const [before, after] = [
    parts.findIndex((part) => part.repeat),
    parts.findLastIndex((part) => part.repeat),
  ]
  const entries = new Set<string>()
  const document = {
    schema: 'wickerframe.template/1',
    key: named.key,
    title: named.title,
    appliesTo: { modalities: [facts.modality], weeks: [facts.weeks] },
    naming: {
      courseName: onceName(course.name),
      courseLabel: course.label === '' ? '{code}' : onceName(course.label),
    },
    home: {
      name: reading.home ? onceName(reading.home.name) : '{code} home',
      blocks: reading.home ? onceBlocks(reading.home) : [],
    },
    navigation: course.navigation.map((entry) => {
      const entryKey = freshKey(entry.label, entries)
      entries.add(entryKey)
      return { key: entryKey, label: entry.label.slice(0, 100) || 'Entry', hidden: entry.hidden }
    }),
    parts: parts.map((part, i) =>
      part.repeat || before < 0
        ? part
        : {
            ...part,
            position:
              i < before && i === 0
                ? 'first'
                : i > after && i === parts.length - 1
                  ? 'last'
                  : part.position,
          },
    ),
  }
  const read = readDocument(Template, document)
  return read.ok ? { ok: true, value: { template: read.value, proposals } } : read
}
