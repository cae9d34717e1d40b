import type { z } from 'zod'
import type {
  Change,
  Course,
  CourseHistory,
  CourseItem,
  CourseModule,
  Facts,
} from '../course/index.ts'
import type { ExpectedPart } from '../expand/index.ts'
import type { Strength, Template } from '../template/index.ts'
import type { CheckContext } from './context.ts'
import type { Subject } from './subject.ts'
import { withCriteria, type SuccessCriterion } from './wcag.ts'

export const ruleGroups = [
  'structure',
  'names',
  'dates',
  'home page',
  'page content',
  'links',
  'visibility',
  'grades',
  'questions',
  'files',
  'settings',
  'access',
  'outcomes',
  'deployment',
] as const
export type RuleGroup = (typeof ruleGroups)[number]
export type Mender = 'instructor' | 'designer' | 'administrator'

/** The exact words, values or dates seen. */
export interface SeenEvidence {
  kind: 'words' | 'date' | 'value' | 'count'
  text: string
}

interface Requirement {
  subject: Subject
  /** Tells apart requirements of one rule about the same subject, by content; e.g. a block's key. */
  discriminator?: string
  /** Weaker than the rule's own, where the block or part says so. */
  strength?: Strength
}

/** What a rule says of one requirement. */
export type Verdict =
  | (Requirement & { outcome: 'passed' })
  | (Requirement & { outcome: 'inapplicable' })
  | (Requirement & {
      outcome: 'failed'
      /** Key of the rule's message. */
      message: string
      /** Named values of the message. */
      values: Readonly<Record<string, string>>
      evidence: readonly SeenEvidence[]
      expected: string
      /** Id of the item or module it stands in, on the platform. */
      itemId?: string | undefined
      /** Same for findings that are one omission told many times; without it, the part's key. */
      together?: string
    })
  | (Requirement & { outcome: 'cannot-tell'; reason: string; itemId?: string | undefined })
  | (Requirement & { outcome: 'not-due-yet'; dueOn: string })
  /** The part is not in the course: another rule tells that, this one follows it. */
  | (Requirement & { outcome: 'absent' })

/** A course as an example shows it, with what the example may change. */
export interface ExampleCourse {
  course: Course
  facts: Facts
  template: Template
  history: CourseHistory
  /** The item made from a part, e.g. `item('week-overview', 3)`. */
  item: (part: string, week?: number) => CourseItem
  module: (part: string, week?: number) => CourseModule
}

export interface RuleExample {
  title: string
  /** `YYYY-MM-DD`; the Wednesday of week 3 without it. */
  asOf?: string
  change: (example: ExampleCourse) => void
}

/** What shows a rule at work, in `<id>.examples.ts` beside it: its tests, and its page of documentation. */
export interface RuleExamples {
  passes: readonly RuleExample[]
  /** `evidence` is the text of the first evidence of some finding. */
  fails: readonly (RuleExample & { evidence: string })[]
}

export interface Rule<P extends z.ZodType = z.ZodType> {
  /** kebab-case, stable for ever; also the file's name. */
  id: string
  group: RuleGroup
  title: string
  /** What goes wrong, and for whom, when it is broken. */
  why: string
  /** Success criteria of WCAG 2.2 that it rests on; they stand at the end of why it matters. */
  wcag?: readonly SuccessCriterion[]
  /** What it does not tell, and why: whoever relies on it should know. */
  untold: string
  strength: Strength
  parameters: P
  mender: Mender
  /**
   * Only somebody who has the course before them can meet it: a freshly deployed course is told it from a template in which all is
   * right. Without it, what such a course is told is its template’s own.
   */
  onlyInCourse?: true
  /** It tells only that nobody has given their word; a word settles it. */
  asksForWord?: true
  /** Minutes to mend one place, an honest guess. */
  effortMinutes: number
  /** Sentences with named values in braces. */
  messages: Readonly<Record<string, string>>
  /** The sentence of a finding of several places that all say something of their own: `{list}` is the values of one name. */
  several?: { message: string; lists: string }
  check: (context: CheckContext, parameters: z.output<P>) => Iterable<Verdict>
  /** The changes that remove a finding, where a machine can know the right answer. */
  mend?: (verdict: Extract<Verdict, { outcome: 'failed' }>, context: CheckContext) => Change[]
}

/** A rule whose parameters are read from whatever a template gives. */
export interface AnyRule extends Omit<Rule, 'check' | 'parameters'> {
  parameters: z.ZodType
  run: (context: CheckContext, rawParameters: unknown) => Iterable<Verdict>
}

/** Makes a rule usable without knowing its parameters' type. */
export const defineRule = <P extends z.ZodType>(rule: Rule<P>): AnyRule => {
  const { check, ...rest } = rule
  let usual: z.output<P> | null = null
  const parametersOf = (raw: unknown): z.output<P> => {
    if (
      raw !== undefined &&
      !(typeof raw === 'object' && raw !== null && Object.keys(raw).length === 0)
    )
      return rule.parameters.parse(raw)
    return (usual ??= rule.parameters.parse({}))
  }
  return {
    ...rest,
    why: withCriteria(rule.why, rule.wcag ?? []),
    run: (context, rawParameters) => check(context, parametersOf(rawParameters)),
  }
}

export const aboutPart = (part: ExpectedPart): Subject => ({ about: 'part', part })
/** A found module or item: the part it was paired with, or itself where nothing expects it. */
export const aboutFound = (context: CheckContext, found: { id: string; name: string }): Subject => {
  const part = context.partOf(found.id)
  return part ? aboutPart(part) : { about: 'found', id: found.id, name: found.name }
}
export const aboutCourse: Subject = { about: 'course' }

/** Verdicts about what should not be there; where there is none of it, the course as a whole passes. */
export function* orPassed(verdicts: Iterable<Verdict>): Generator<Verdict> {
  let isSaid = false
  for (const verdict of verdicts) {
    isSaid = true
    yield verdict
  }
  if (!isSaid) yield { subject: aboutCourse, outcome: 'passed' }
}
