import { touchesWork, type Course, type CourseItem, type CourseModule } from '../course/index.ts'
import type { ExpectedPart, Fields } from '../expand/index.ts'
import type { FieldBase } from './base.ts'
import { mergeCaseOf, sameValue, type Decision, type FieldStep } from './mergeCase.ts'
import { mergeName } from './mergeName.ts'
import { formatOfName, presentField } from './wantedFields.ts'

export interface FieldsMergeInput {
  wanted: Fields
  /** The course, module or item as it stands. */
  of: Course | CourseModule | CourseItem
  /** null where nothing was deployed before. */
  before: Record<string, FieldBase> | null
  /** The part, and the naming format its name was deployed by. */
  name: { format: string | null; part: ExpectedPart } | null
  /** Whether students have work in it: what touches how that counts is left alone. */
  hasWork: boolean
  decide: (field: string) => Decision | null
}

export interface FieldsMerge {
  /** What is to be written. */
  write: Fields
  told: FieldStep[]
  /** What the base says of the fields then; those of `freshFields` are read from what the platform gives back. */
  fields: Record<string, FieldBase>
  freshFields: string[]
}

/** Merges the fields of something that stands. */
export const mergeFields = ({
  wanted,
  of,
  before,
  name,
  hasWork,
  decide,
}: FieldsMergeInput): FieldsMerge => {
  const write: Fields = {}
  const told: FieldStep[] = []
  const fields: Record<string, FieldBase> = { ...before }
  // What the template did not speak of when it was deployed is untouched while nothing is set there.
  const unspoken: FieldBase | null = before === null ? null : { sent: null, echo: null }
  const freshFields: string[] = []
  for (const [field, value] of Object.entries(wanted)) {
    const was = before?.[field] ?? unspoken
    const present = presentField(of, field)
    const mergeCase = mergeCaseOf(was, present, value)
    const say = (
      does: FieldStep['does'],
      result: unknown,
      reason: string,
      decided: Decision | null = null,
      because?: FieldStep['because'],
    ) =>
      told.push({
        field,
        does,
        base: was?.sent ?? null,
        present,
        wanted: value,
        result,
        decided,
        reason,
        ...(because ? { because } : {}),
      })
    const sent = (value ?? null) as FieldBase['sent']
    if (mergeCase === 'agree') {
      fields[field] = { sent, echo: present as FieldBase['echo'] }
      if (was === null || !sameValue(was.sent, value))
        say(
          'agree',
          present,
          was === null ? 'is there already' : 'the course says what the template says now',
        )
      continue
    }
    if (mergeCase === 'same' || mergeCase === 'keep') continue
    if (hasWork && touchesWork(field)) {
      say('leave', present, 'students have work in it; it is left alone', null, 'student-work')
      continue
    }
    if (mergeCase === 'change') {
      write[field] = value
      fields[field] = { sent, echo: null }
      freshFields.push(field)
      say('change', value, 'changed in the template; it is as it was deployed')
      continue
    }
    const merged =
      field === 'name' && name?.format && was
        ? mergeName(
            { format: name.format, name: String(was.sent) },
            String(present),
            formatOfName(name.part),
            name.part.values,
          )
        : null
    if (merged !== null) {
      // Kept as wanted, not as it stands: the instructor's own words in it stay theirs in the next merge.
      fields[field] = { sent, echo: sent }
      if (merged !== present) write[field] = merged
      say(
        merged === present ? 'agree' : 'change',
        merged,
        merged === present
          ? 'the instructor’s words stay in it'
          : 'changed in the template; the instructor’s own words stay in it',
      )
      continue
    }
    const decided = decide(field)
    if (decided === 'take') {
      write[field] = value
      fields[field] = { sent, echo: null }
      freshFields.push(field)
    } else if (decided === 'keep') fields[field] = { sent, echo: sent }
    say(
      'conflict',
      decided === 'take' ? value : present,
      was === null
        ? 'the course says something else than the template'
        : 'changed in the template and in the course',
      decided === 'both' ? null : decided,
    )
  }
  return { write, told, fields, freshFields }
}
