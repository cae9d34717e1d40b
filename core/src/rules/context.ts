import { grouped } from '../grouped/index.ts'
import { instantOf, localDateOf, spanningTerm, type Term } from '../calendar/index.ts'
import {
  type CohortClash,
  type Course,
  type CourseChild,
  type CourseHistory,
  type CourseItem,
  courseLinks,
  type CourseModule,
  everyCourseItem,
  everyModule,
  isShown,
  type LinkTarget,
  modulesIn,
  type PlacedItem,
} from '../course/index.ts'
import {
  neededBy,
  openingDayOf,
  everyExpected,
  namingFormatOf,
  type ExpectedBlock,
  type ExpectedCourse,
  type ExpectedPart,
} from '../expand/index.ts'
import {
  foldedName,
  isDaySpan,
  judgeName,
  rangesAgree,
  rangesNamed,
  readName,
  type FieldValues,
  type NamedRange,
  type NameContext,
  type NameJudgement,
  type NameReading,
} from '../naming/index.ts'
import { readBlocks, type BlockReading, type PageFacts } from '../page/index.ts'
import type { GroupingReading, Pair, Pairing } from '../pair/index.ts'
import { remember } from '../remember/index.ts'
import type { Strength } from '../template/index.ts'
import type { Subject } from './subject.ts'

export interface CheckInput {
  expected: ExpectedCourse
  course: Course
  pairing: Pairing
  groupings: Readonly<Record<string, GroupingReading>>
  /** The day the check speaks of, `YYYY-MM-DD`, 00:00 in the term's time zone. */
  asOf: string
  pageOf: (item: CourseItem) => PageFacts | null
  /** Names that other courses of the term carry as well; none without them. */
  clashes?: readonly CohortClash[]
  /** Deployments, versions and the like; what rests on it does not apply without it. */
  history?: CourseHistory | null
  /** Instances that the instructor marked “not this week”. */
  notThisWeek?: readonly string[]
}

/** A block the template asks for, and how it stands where its page was found. */
export interface PlacedBlock {
  part: ExpectedPart
  block: ExpectedBlock
  told: { subject: Subject; discriminator: string; strength: Strength }
  /** null where its page is not there, or cannot be read. */
  stands: { there: PairedItem; reading: BlockReading } | null
}

/** A page of the course with what is known of where it stands. */
export interface CoursePage {
  placed: PlacedItem
  page: PageFacts
  part: ExpectedPart | null
  subject: Subject
}

/** A part of the template with what was found for it. */
export interface PairedItem {
  part: ExpectedPart
  pair: Pair
  item: CourseItem
  module: CourseModule | null
}

/** From this confidence of a pair on, a name that speaks of another place is the name's fault and not the pair's. */
const surePlace = 0.9

/**
 * Everything a rule may read. Dates are compared only through it, so that it knows in which interval of as-of dates
 * the result stays the same.
 */
export class CheckContext {
  readonly expected: ExpectedCourse
  readonly course: Course
  readonly pairing: Pairing
  readonly groupings: Readonly<Record<string, GroupingReading>>
  readonly asOf: string
  readonly pageOf: (item: CourseItem) => PageFacts | null
  /** Every expected part but the home page, modules before their items. */
  readonly parts: readonly ExpectedPart[]
  readonly placedItems: readonly PlacedItem[]
  readonly modules: readonly CourseModule[]
  readonly clashes: readonly CohortClash[]
  readonly history: CourseHistory | null
  readonly notThisWeek: ReadonlySet<string>

  readonly #partsByKey: ReadonlyMap<string, ExpectedPart[]>
  readonly #pairOf: ReadonlyMap<string, Pair>
  readonly #partOf: ReadonlyMap<string, ExpectedPart>
  readonly #paired = new Map<ExpectedPart, PairedItem>()
  readonly #items: ReadonlyMap<string, PlacedItem>
  readonly #modules: ReadonlyMap<string, CourseModule>
  /** The module that a module stands in. */
  readonly #outer: ReadonlyMap<CourseModule, CourseModule>
  readonly #instances: ReadonlyMap<string, ExpectedPart>
  readonly #readings = new Map<string, readonly BlockReading[]>()
  readonly #judgements = new Map<string, NameJudgement>()
  readonly #nameReadings = new Map<ExpectedPart, { name: string; reading: NameReading | null }>()
  readonly #ranges = new Map<CourseModule, NamedRange | null>()
  readonly #localDates = new Map<string, string>()
  readonly #needs = new Map<ExpectedPart, string>()
  #pageParts: ExpectedPart[] | null = null
  #pages: CoursePage[] | null = null
  #unread: { placed: PlacedItem; subject: Subject; why: string }[] | null = null
  #blocks: PlacedBlock[] | null = null
  #leads: ((href: string) => LinkTarget) | null = null
  #from: string | null = null
  #until: string | null = null

  constructor(input: CheckInput) {
    this.expected = input.expected
    this.course = input.course
    this.pairing = input.pairing
    this.groupings = input.groupings
    this.asOf = input.asOf
    this.pageOf = input.pageOf
    this.parts = everyExpected(input.expected.parts)
    this.placedItems = everyCourseItem(input.course)
    this.modules = everyModule(input.course.modules)
    this.clashes = input.clashes ?? []
    this.history = input.history ?? null
    this.notThisWeek = new Set(input.notThisWeek)
    this.#instances = new Map(
      [input.expected.home, ...this.parts].map((part) => [part.instance, part]),
    )
    this.#partsByKey = grouped(this.parts, (part) => part.key)
    this.#pairOf = new Map(input.pairing.pairs.map((pair) => [pair.expected, pair]))
    this.#partOf = new Map(
      input.pairing.pairs.flatMap((pair) => {
        const part = this.#instances.get(pair.expected)
        return part ? [[pair.found, part] as const] : []
      }),
    )
    this.#items = new Map(this.placedItems.map((placed) => [placed.item.id, placed]))
    this.#modules = new Map(this.modules.map((module) => [module.id, module]))
    this.#outer = new Map(
      this.modules.flatMap((outer) => modulesIn(outer).map((inner) => [inner, outer] as const)),
    )
    for (const pair of input.pairing.pairs) {
      const part = this.#instances.get(pair.expected)
      const placed = this.#items.get(pair.found)
      if (part && placed)
        this.#paired.set(part, { part, pair, item: placed.item, module: placed.module })
    }
  }

  /** Whether the as-of date is that date or later. */
  reached(date: string): boolean {
    const yes = this.asOf >= date
    if (yes) {
      if (this.#from === null || date > this.#from) this.#from = date
    } else if (this.#until === null || date < this.#until) this.#until = date
    return yes
  }

  /** The as-of dates for which this result holds: from the first (included) until the second (excluded); null: without end. */
  get holds(): { from: string | null; until: string | null } {
    return { from: this.#from, until: this.#until }
  }

  /** The course's term; with the one after it, where the course spans two. */
  get term(): Term {
    return spanningTerm(this.expected.facts.term, this.expected.facts.nextTerm)
  }

  get timeZone(): string {
    return this.expected.facts.term.timeZone
  }

  /** Local date of an instant in the term's time zone. */
  dateOf(instant: string): string {
    let date = this.#localDates.get(instant)
    if (date === undefined)
      this.#localDates.set(instant, (date = localDateOf(instant, this.timeZone)))
    return date
  }

  instantAt(date: string, time: string): string {
    return instantOf(date, time, this.timeZone)
  }

  pairOf(part: ExpectedPart): Pair | null {
    return this.#pairOf.get(part.instance) ?? null
  }

  /** The part a found module or item was paired with. */
  partOf(foundId: string): ExpectedPart | null {
    return this.#partOf.get(foundId) ?? null
  }

  partAt(instance: string | null): ExpectedPart | null {
    return instance === null ? null : (this.#instances.get(instance) ?? null)
  }

  /** Every part instance of a part of the template, in order. */
  partsOfKey(key: string): readonly ExpectedPart[] {
    return this.#partsByKey.get(key) ?? []
  }

  itemFor(part: ExpectedPart): PairedItem | null {
    return this.#paired.get(part) ?? null
  }

  moduleFor(part: ExpectedPart): CourseModule | null {
    const pair = this.#pairOf.get(part.instance)
    return (pair && this.#modules.get(pair.found)) ?? null
  }

  /** Whether the module found for a module part holds what belongs in others as well: weeks that were folded into one. */
  sharesModule(part: ExpectedPart | null): boolean {
    return this.pairing.merged.some(({ expected }) => expected.includes(part?.instance ?? ''))
  }

  /**
   * Whether a part is a module, or stands in one, in place of which the course has units that cannot be read: that is
   * asked once, and where such parts belong, what they are called and when they run is not told beside it.
   */
  awaitsUnits(part: ExpectedPart): boolean {
    const module = part.kind === 'module' ? part : this.partAt(part.parent)
    return module !== null && this.groupings[module.key]?.state === 'unreadable'
  }

  moduleById(id: string): CourseModule | null {
    return this.#modules.get(id) ?? null
  }

  /** The item a verdict speaks of; null where it speaks of none. */
  itemAt(id: string | undefined): CourseItem | null {
    return id === undefined ? null : (this.#items.get(id)?.item ?? null)
  }

  placed(id: string): PlacedItem | null {
    return this.#items.get(id) ?? null
  }

  /** Parts with pages: the home page and every expected item that has blocks. */
  pageParts(): readonly ExpectedPart[] {
    return (this.#pageParts ??= [
      this.expected.home,
      ...this.parts.filter((part) => part.blocks.length > 0),
    ])
  }

  /** Every page of the course that could be read, in order; those that could not are told as such by the check. */
  pages(): readonly CoursePage[] {
    return (this.#pages ??= this.placedItems.flatMap((placed): CoursePage[] => {
      const page = this.pageOf(placed.item)
      if (!page || page.notRead !== null) return []
      const part = this.partOf(placed.item.id)
      return [
        {
          placed,
          page,
          part,
          subject: part
            ? { about: 'part', part }
            : { about: 'found', id: placed.item.id, name: placed.item.name },
        },
      ]
    }))
  }

  /** Items whose page could not be read, with the reason. */
  unreadPages(): readonly { placed: PlacedItem; subject: Subject; why: string }[] {
    return (this.#unread ??= this.placedItems.flatMap((placed) => {
      const why = this.pageOf(placed.item)?.notRead ?? null
      const part = this.partOf(placed.item.id)
      return why === null
        ? []
        : [
            {
              placed,
              why,
              subject: part
                ? ({ about: 'part', part } as const)
                : ({ about: 'found', id: placed.item.id, name: placed.item.name } as const),
            },
          ]
    }))
  }

  /** Every block of every page the template asks for, in order, with how it stands. */
  blocks(): readonly PlacedBlock[] {
    return (this.#blocks ??= this.pageParts().flatMap((part) => {
      const there = this.itemFor(part)
      const all = there ? this.readingsOf(there) : null
      const halves = there && all ? this.#otherHalves(there) : []
      return part.blocks.map((block, i): PlacedBlock => {
        const reading = all?.[i]
        // A page that was taken apart has its block where that was taken to.
        const moved =
          reading?.state === 'missing'
            ? halves.find(({ readings }) => readings[i] && readings[i].state !== 'missing')
            : undefined
        const movedReading = moved?.readings[i]
        return {
          part,
          block,
          told: {
            subject: { about: 'part', part },
            discriminator: block.key,
            strength: block.strength,
          },
          stands:
            moved && movedReading
              ? { there: moved.there, reading: movedReading }
              : there && reading
                ? { there, reading }
                : null,
        }
      })
    }))
  }

  /** The other pages that a page was taken apart into, with how its blocks stand in each. */
  #otherHalves(there: PairedItem): { there: PairedItem; readings: readonly BlockReading[] }[] {
    const split = this.pairing.split.find(({ expected }) => expected === there.part.instance)
    return (split?.found.slice(1) ?? []).flatMap((id) => {
      const placed = this.#items.get(id)
      const page = placed ? this.pageOf(placed.item) : null
      return placed && page && page.notRead === null
        ? [
            {
              there: { ...there, item: placed.item, module: placed.module },
              readings: readBlocks(there.part.blocks, page, this.asOf),
            },
          ]
        : []
    })
  }

  /** Where a link of one of its pages leads. */
  leadsTo(href: string): LinkTarget {
    return (this.#leads ??= remember(10_000, courseLinks(this.course)))(href)
  }

  /** How the blocks of a part stand in the page found for it; null without a page. */
  readingsOf(paired: PairedItem): readonly BlockReading[] | null {
    const kept = this.#readings.get(paired.part.instance)
    if (kept) return kept
    const page = this.pageOf(paired.item)
    if (!page || page.notRead !== null) return null
    const readings = readBlocks(paired.part.blocks, page, this.asOf)
    this.#readings.set(paired.part.instance, readings)
    for (const block of paired.part.blocks)
      for (const revision of block.houseText?.revisions.slice(1) ?? [])
        this.reached(revision.inForceFrom)
    return readings
  }

  /** What names of this place are judged in: the values wanted there, dates near the term, its class sections. */
  nameContext(values: FieldValues): NameContext {
    return {
      places: [values],
      near: this.openingDay,
      classSections: this.expected.facts.classSections,
    }
  }

  /** A name read against a part's format, with what the part's fields should say; null when it does not follow it. */
  readingOf(part: ExpectedPart, name: string): NameReading | null {
    const known = this.#nameReadings.get(part)
    if (known?.name === name) return known.reading
    const reading = readName(namingFormatOf(part), name, part.values)
    this.#nameReadings.set(part, { name, reading })
    return reading
  }

  /** The first range of days that a module's name speaks of, nearest to the part it was paired with; null without one. */
  rangeNamed(module: CourseModule): NamedRange | null {
    const known = this.#ranges.get(module)
    if (known !== undefined) return known
    const part = this.partOf(module.id)
    const wanted = part?.values.dates
    const said =
      part && isDaySpan(wanted)
        ? this.readingOf(part, module.name)?.readings.find(
            (reading) => reading.field === 'dates' && reading.state === 'right',
          )
        : undefined
    const range =
      said && isDaySpan(wanted)
        ? { ...wanted, text: said.text }
        : (rangesNamed(module.name, this.openingDay, isDaySpan(wanted) ? wanted : undefined)[0] ??
          null)
    this.#ranges.set(module, range)
    return range
  }

  /**
   * Whether a module stands for a week in which nothing is taught: the part it was paired with does, or, where nothing
   * expects it (units stand in place of weeks), its name says the break or the days of one.
   */
  isForBreak(module: CourseModule): boolean {
    const part = this.partOf(module.id)
    if (part) return part.inBreak
    const range = this.rangeNamed(module)
    const name = foldedName(module.name)
    return this.expected.weeks.some(
      ({ breakName, first, last }) =>
        breakName !== null &&
        (name.includes(foldedName(breakName)) ||
          (range !== null && rangesAgree(range, { first, last }, 2))),
    )
  }

  /** How the name of the module or item found for a part stands to the part's format. */
  judgementOf(part: ExpectedPart, name: string): NameJudgement {
    const key = `${part.instance} ${name}`
    let judgement = this.#judgements.get(key)
    if (!judgement)
      this.#judgements.set(
        key,
        (judgement = judgeName(namingFormatOf(part), name, {
          ...this.nameContext(part.values),
          placeSure: (this.pairOf(part)?.confidence ?? 0) >= surePlace,
        })),
      )
    return judgement
  }

  /** First day of the term's weeks: everything outside the weeks is needed by then. */
  get openingDay(): string {
    return openingDayOf(this.expected)
  }

  /** The day by which a part is needed: its week's first day less the lead, or opening day. */
  needOf(part: ExpectedPart): string {
    let need = this.#needs.get(part)
    if (need === undefined) this.#needs.set(part, (need = neededBy(this.expected, part)))
    return need
  }

  /** Whether a module or item is shown to students and its opening, if it has one, is reached. */
  #open(child: CourseChild): boolean {
    return isShown(child) && (child.opensAt === null || this.reached(this.dateOf(child.opensAt)))
  }

  /** Whether a module is shown to students, and every module that it stands in; dates aside. */
  moduleShown(module: CourseModule): boolean {
    const outer = this.#outer.get(module)
    return isShown(module) && (outer === undefined || this.moduleShown(outer))
  }

  /** Whether a module is open on the as-of date, and every module that it stands in. */
  moduleOpen(module: CourseModule): boolean {
    const outer = this.#outer.get(module)
    return this.#open(module) && (outer === undefined || this.moduleOpen(outer))
  }

  /** Whether students can reach an item on the as-of date: course, modules and item must all be open. */
  studentsReach(placed: { item: CourseItem; module: CourseModule | null }): boolean {
    return (
      this.course.published &&
      this.#open(placed.item) &&
      (placed.module === null || this.moduleOpen(placed.module))
    )
  }
}
