import { readDocument, type Problem, type Result } from '../document/index.ts'
import { NavigationTarget, partsWithin, targetIn, Template, type Part } from '../template/index.ts'
import { onceBlocks, onceModule, onceName } from './onceParts.ts'
import {
  keysApart,
  short,
  startProposing,
  type ModelProposal,
  type Proposing,
} from './proposing.ts'
import type { ModelReading } from './readModel.ts'
import { repeatedModule } from './repeatedModule.ts'

export interface ModelTemplate {
  template: Template
  proposals: ModelProposal[]
}

/** Whether the modules that look alike are taken as one that repeats. */
const proposeRepeat = ({ propose, reading: { group } }: Proposing) => {
  if (group === null) return null
  const { byStructure, per, repetitions } = group
  const accepted = propose({
    id: 'repeat',
    about: 'repeat',
    part: 'learning',
    words: `${repetitions.length} modules are one, repeated each ${per}`,
    evidence: `“${short(repetitions[0]?.module.name ?? '', 50)}” to “${short(repetitions.at(-1)?.module.name ?? '', 50)}”${byStructure > 0 ? `; ${byStructure} by what they hold` : ''}`,
    support: Math.min(1, repetitions.length / 6),
  })
  return accepted ? group : null
}

/** Every module as it stands, but for the repetitions, which become one module where the first of them stands. */
const partsOf = (proposing: Proposing): Part[] => {
  const { course, once } = proposing.reading
  const group = proposeRepeat(proposing)
  let isPlaced = false
  return course.modules.flatMap((module): Part[] => {
    if (group === null || once.includes(module)) return [onceModule(proposing, module)]
    if (isPlaced) return []
    isPlaced = true
    return [repeatedModule(proposing, group)]
  })
}

/** What stands before everything that repeats comes first, what stands after all of it comes last. */
const withPositions = (parts: readonly Part[]): Part[] => {
  const before = parts.findIndex(({ repeat }) => repeat)
  const after = parts.findLastIndex(({ repeat }) => repeat)
  if (before < 0) return [...parts]
  return parts.map((part, i) => {
    if (part.repeat) return part
    if (i === 0 && i < before) return { ...part, position: 'first' }
    return i === parts.length - 1 && i > after ? { ...part, position: 'last' } : part
  })
}

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
  const proposing = startProposing(reading, refused)
  const { course, facts, home } = reading
  const entryKey = keysApart()
  const parts = partsOf(proposing)
  /** Where an entry leads, as the template says it; nothing where that becomes no part of it. */
  const targetOf = (to: string | undefined): string | undefined => {
    const id = targetIn('item', to)
    if (id !== null && id === course.homePage) return 'place:home'
    const key = id === null ? undefined : proposing.keyOf.get(id)
    const target = id === null ? to : key && isPart.has(key) ? `part:${key}` : undefined
    return NavigationTarget.safeParse(target).data
  }
  const isPart = new Set(partsWithin(parts).map(({ key }) => key))
  const read = readDocument(Template, {
    schema: 'wickerframe.template/1',
    key: named.key,
    title: named.title,
    appliesTo: { modalities: [facts.modality], weeks: [facts.weeks] },
    naming: {
      courseName: onceName(course.name, reading),
      courseLabel: course.label === '' ? '{code}' : onceName(course.label, reading),
    },
    home: {
      name: home ? onceName(home.name, reading) : '{code} home',
      blocks: home ? onceBlocks(home, reading) : [],
    },
    navigation: course.navigation.map(({ label, hidden, to }) => {
      const leads = targetOf(to)
      return {
        key: entryKey(label),
        label: label.slice(0, 100) || 'Entry',
        hidden,
        ...(leads === undefined ? {} : { to: leads }),
      }
    }),
    parts: withPositions(parts),
    ...(parts.some(({ repeat }) => repeat?.per === 'unit')
      ? { units: reading.group?.repetitions.length }
      : {}),
  })
  return read.ok
    ? { ok: true, value: { template: read.value, proposals: proposing.proposals } }
    : read
}
