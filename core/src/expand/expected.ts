import type { Unit, Week } from '../calendar/index.ts'
import type { Facts } from '../course/index.ts'
import { formatOf, type FieldName, type FieldValues, type NamingFormat } from '../naming/index.ts'
import type { ExpectedFile } from './fileForCourse.ts'
import {
  isModule,
  type Audience,
  type HouseText,
  type Item,
  type ItemKind,
  type KeptBlockBody,
  type Module,
  type QuestionBody,
  type Strength,
  type Template,
} from '../template/index.ts'

/** A block of an expected page: its definition with fields filled and links to parts turned into references. */
export interface ExpectedBlock {
  /** What stands there; where a kept block is shown, that block. */
  definition: KeptBlockBody
  key: string
  kind: KeptBlockBody['kind']
  strength: Strength
  /** Inner HTML as deployment writes it; for a house text that of its newest revision. Links to parts are `ref:INSTANCE`. */
  html: string
  /** The answer known for the whole course, or null. */
  answer: string | null
  /** Pieces of the HTML that ask the instructor until they are answered. */
  asks: string[]
  /** A house text that is copied in; null for one that is linked, and for every other block. */
  houseText: HouseText | null
}

/** A question with its naming fields filled: all its texts are HTML, as a course holds them. */
export interface ExpectedQuestion {
  key: string
  /** How it is left to the instructor; null: it stands as written. */
  left: 'proposed' | 'sample' | null
  body: QuestionBody
}

/** A part worked out for one course. */
export interface ExpectedPart {
  /** Id of this part instance: the part's key, and its repetition when it repeats. */
  instance: string
  key: string
  /** Minted id of the repetition, or null. Its number and dates are attributes, never its identity. */
  repetition: string | null
  /** The number by which a later deployment carries the repetition over, or null. */
  repetitionNumber: number | null
  definition: Module | Item
  kind: ItemKind | 'module'
  name: string
  /** Fields of the name that had no value and stand as their prompt. */
  unfilledFields: FieldName[]
  /** What the fields of its name should say, where known. */
  values: FieldValues
  strength: Strength
  audience: Audience
  /** The week it stands in; for a unit its first week; null outside the weeks. */
  week: Week | null
  /** All weeks it covers: one for a weekly module, several for a unit. */
  weeks: Week[]
  /** Key of the exception that makes this repetition different or adds the part, or null. */
  exception: string | null
  /** Whether its week is a break, in which its items are not asked for. */
  inBreak: boolean
  /** Opening, due and closing instants, ISO 8601 UTC. */
  opensAt: string | null
  dueAt: string | null
  closesAt: string | null
  blocks: ExpectedBlock[]
  /** Of an assessment, in order. */
  questions: ExpectedQuestion[]
  /** The file it hands out; null where it hands out none of the template's. */
  file: ExpectedFile | null
  items: ExpectedPart[]
  /** Instance of the module it stands in, or null. */
  parent: string | null
}

/** A template version worked out for one course. */
export interface ExpectedCourse {
  template: Template
  facts: Facts
  name: string
  label: string
  weeks: Week[]
  /** Instants (ISO 8601, UTC) between which students are to reach the course; null where the template does not say. */
  window: { opensAt: string; closesAt: string } | null
  home: ExpectedPart
  parts: ExpectedPart[]
  /** Units read from the course that stand in place of weekly modules, by module key. */
  groupings: Record<string, Unit[]>
}

/** The naming format a part's name follows: its own, or that of a unit standing in place of weeks. */
export const namingFormatOf = (part: ExpectedPart): NamingFormat => {
  const { definition } = part
  return formatOf(
    isModule(definition) && definition.groupings && part.values.unit !== undefined
      ? definition.groupings.name
      : definition.name,
  )
}

/** Every expected part, modules before their items, in order; without the home page. */
export const everyExpected = (parts: readonly ExpectedPart[]): ExpectedPart[] => {
  const all: ExpectedPart[] = []
  const add = (some: readonly ExpectedPart[]) => {
    for (const part of some) {
      all.push(part)
      add(part.items)
    }
  }
  add(parts)
  return all
}
