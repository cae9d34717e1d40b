import { itemsIn, type CourseItem } from '../course/index.ts'
import {
  aKind,
  newItem,
  newModule,
  repeatWords,
  type Anchor,
  type Exception,
  type Item,
  type Module,
  type Part,
} from '../template/index.ts'
import { literalFormat } from './bestFormat.ts'
import { mayLeave, onceItem, settingsOf } from './onceParts.ts'
import { proposedBlocks } from './proposedBlocks.ts'
import { followWords, short, type Proposing } from './proposing.ts'
import type { ModelReading, ReadSlot } from './readModel.ts'

type Group = NonNullable<ModelReading['group']>

/** What stands in every repetition, or in some of them by a rule, as an item of the template. */
const slotItem = (proposing: Proposing, slot: ReadSlot, per: string): Item => {
  const { keyFor, propose } = proposing
  const [first] = slot.items.values()
  const key = keyFor(
    slot.format.format || slot.kind,
    [...slot.items.values()].map(({ id }) => id),
  )
  const named = propose({
    id: `format:${key}`,
    about: 'format',
    part: key,
    words: `named “${slot.format.format}”`,
    evidence: followWords(
      slot.format.share,
      slot.format.leftOut,
      `all ${slot.items.size} names follow`,
    ),
    support: slot.format.share,
  })
  return {
    ...newItem(
      slot.kind,
      key,
      named ? slot.format.format : literalFormat(first?.name ?? slot.kind),
    ),
    strength: (slot.rule?.agreement ?? 1) >= 0.9 ? 'must' : 'should',
    ...(slot.rule?.repeat ? { repeat: { per: 'week' as const, ...slot.rule.repeat } } : {}),
    ...(slot.comesLast ? { position: 'last' as const } : {}),
    settings: { ...settingsOf(slot), ...(slot.due ? { due: slot.due } : {}) },
    audience: slot.hidden ? 'staff' : 'students',
    inGroup: 'per-week',
    blocks: proposedBlocks(proposing, key, slot.page, per),
    ...(first?.target ? { url: first.target } : {}),
  }
}

/** What is different in single repetitions, gathered as it is found. */
const exceptionsOf = ({ keyFor, reading }: Proposing, key: string, numbers: readonly number[]) => {
  const exceptions = new Map<string, Exception>()
  const anchorOf = (number: number): Anchor => {
    if (reading.pauses.includes(number)) return { at: 'pause' }
    if (number === numbers[0]) return { at: 'first' }
    return number === numbers.at(-1) ? { at: 'last' } : { at: 'number', number }
  }
  return {
    at: (number: number): Exception => {
      const anchor = anchorOf(number)
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
    },
    withContent: () => [...exceptions.values()].filter(({ add }) => add.length > 0),
  }
}

/** The module that the repetitions of a model course suggest. */
export const repeatedModule = (proposing: Proposing, group: Group): Module => {
  const { keyFor, propose, reading } = proposing
  const { per } = group
  const key = keyFor(
    'learning',
    group.repetitions.map(({ module }) => module.id),
  )
  const { format, leftOut, share } = reading.moduleFormat ?? { format: '', leftOut: [], share: 0 }
  const named = propose({
    id: `format:${key}`,
    about: 'format',
    part: key,
    words: `named “${format}”`,
    evidence: followWords(share, leftOut, 'all names follow'),
    support: share,
  })
  const numbers = group.repetitions.map(({ number }) => number)
  const moduleAt = (number: number) =>
    group.repetitions.find((repetition) => repetition.number === number)?.module
  const exceptions = exceptionsOf(proposing, key, numbers)
  const addDifferent = (
    number: number,
    item: CourseItem,
    { words, evidence, support }: { words: string; evidence: string; support: number },
  ): void => {
    const exception = exceptions.at(number)
    const added = onceItem(proposing, item)
    const accepted = propose({
      id: `different:${added.key}`,
      about: 'different',
      part: added.key,
      words: `${words}: “${short(item.name, 60)}”`,
      evidence,
      support,
    })
    if (accepted) exception.add.push(added)
  }
  /** What stands in some repetitions alike is one proposal, and an exception in each of them. */
  const addAlike = (slot: ReadSlot): void => {
    const [first] = slot.items.values()
    if (!first) return
    const different = keyFor(first.name)
    const listed = [...slot.items.keys()].join(', ')
    const accepted = propose({
      id: `different:${different}`,
      about: 'different',
      part: different,
      words: `in ${per}s ${listed} only: ${aKind(first.kind)} such as “${short(first.name, 60)}”`,
      evidence: `found in ${slot.items.size} of ${numbers.length - reading.pauses.length}`,
      support: numbers.length >= 6 ? 0.6 : 0.4,
    })
    if (accepted)
      for (const [number, item] of slot.items)
        exceptions.at(number).add.push(onceItem(proposing, item))
  }
  const addDifferences = (slot: ReadSlot): void => {
    if (slot.items.size > 1) {
      addAlike(slot)
      return
    }
    for (const [number, item] of slot.items) {
      const module = moduleAt(number)
      if (!module || mayLeave(item, module))
        addDifferent(number, item, {
          words: `only in ${per} ${number}`,
          evidence: 'no other repetition has it',
          support: numbers.length >= 6 ? 0.6 : 0.4,
        })
    }
  }
  const items: Part[] = []
  for (const slot of reading.slots) {
    // Every second unit is no rule that a template has: those units are told one by one.
    if (!slot.rule || (slot.rule.repeat && per !== 'week')) addDifferences(slot)
    else if (slot.kind !== 'file' || !slot.hidden) {
      const item = slotItem(proposing, slot, per)
      const often = slot.rule.repeat ? repeatWords({ per, ...slot.rule.repeat }) : `in each ${per}`
      const accepted = propose({
        id: `part:${item.key}`,
        about: 'part',
        part: item.key,
        words: `“${short(item.name, 60)}”: ${aKind(item.kind)}, ${often}`,
        evidence: `found in ${slot.items.size} of ${numbers.length - reading.pauses.length}`,
        support: slot.rule.agreement,
      })
      if (accepted) items.push(item)
    }
  }
  for (const number of reading.pauses) {
    const module = moduleAt(number)
    if (module)
      for (const item of itemsIn(module).filter((held) => mayLeave(held, module)))
        addDifferent(number, item, {
          words: 'in the pause only',
          evidence: `${per} ${number} is a break`,
          support: 0.8,
        })
  }
  return {
    ...newModule(
      key,
      named ? format : literalFormat(group.repetitions[0]?.module.name ?? 'Module'),
    ),
    repeat: { per, every: 1, except: [] },
    items,
    exceptions: exceptions.withContent(),
  }
}
