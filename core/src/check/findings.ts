import { shortHash } from '../document/index.ts'
import { fillMessage, type AnyRule, type CheckContext } from '../rules/index.ts'
import type { Strength, Template } from '../template/index.ts'
import { compareFindings } from './compareFindings.ts'
import type { Exemptions } from './exemption.ts'
import { harmlessMend } from './harmlessMend.ts'
import { subjectKey, type OpenRequirement } from './openRequirement.ts'
import type { OfTemplate } from './ofTemplate.ts'
import type { Finding, FindingPlace } from './outcome.ts'
import { whoseMoves } from './whoseMoves.ts'

/** What a finding is known by: the rule, and what its places have in common (a part, or what the rule calls together). */
export const findingFingerprint = (rule: string, together: string): string =>
  shortHash(`${rule}|${together}`)

/**
 * What is told of the requirements that are not met: places of one kind, and of one person to act, together.
 * @param template tells what is its own from what is the course’s; null: everything is the course’s
 */
export const findingsOf = (
  told: readonly OpenRequirement[],
  context: CheckContext,
  policies: ReadonlyMap<string, Template['policies'][number]>,
  exemptions: Exemptions | undefined,
  mends: boolean,
  template: OfTemplate | null,
): Finding[] => {
  const ownerAt = whoseMoves(context)
  const groups = new Map<
    string,
    {
      rule: AnyRule
      strength: Strength
      together: string
      basis: string | null
      owner: string | null
      ofTemplate: boolean
      places: FindingPlace[]
      values: Readonly<Record<string, string>>[]
    }
  >()
  for (const { rule, verdict, outcome } of told) {
    if (verdict.outcome !== 'failed' || outcome.toldBy !== null || outcome.attestedBy !== undefined)
      continue
    const { subject } = verdict
    const together =
      verdict.together ?? (subject.about === 'part' ? subject.part.key : subjectKey(subject))
    const waiver = exemptions?.waivers.find((waiver) => waiver.id === outcome.waivedBy) ?? null
    const digest = shortHash(JSON.stringify(verdict.evidence))
    const ofTemplate =
      rule.mender === 'instructor' &&
      (template?.isOwn(rule, outcome.place, [...verdict.evidence]) ?? false)
    const owner =
      rule.mender === 'instructor' && !ofTemplate ? ownerAt(subject, outcome.place.foundId) : null
    const key = `${rule.id}|${verdict.message}|${together}|${outcome.strength}|${waiver?.id ?? ''}|${owner ?? ''}|${ofTemplate}`
    const wanted = (mends ? rule.mend?.(verdict, context) : undefined) ?? []
    const safe = wanted.length > 0 ? harmlessMend(wanted, context) : { changes: [] }
    const place: FindingPlace = {
      fingerprint: outcome.fingerprint,
      place: outcome.place,
      says: verdict.message,
      message: fillMessage(rule.messages[verdict.message] ?? verdict.message, verdict.values),
      evidence: [...verdict.evidence],
      expected: verdict.expected,
      mend: 'changes' in safe && safe.changes.length > 0 ? safe.changes : null,
      ...('refusal' in safe ? { refusal: safe.refusal } : {}),
      digest,
      waived: waiver && {
        id: waiver.id,
        reason: waiver.reason,
        until: waiver.until,
        changedSince: waiver.evidence !== null && waiver.evidence !== digest,
      },
    }
    const basis =
      policies.get(rule.id)?.basis ??
      (subject.about === 'part' ? subject.part.definition.basis : undefined) ??
      null
    const group = groups.get(key)
    if (group) {
      group.places.push(place)
      group.values.push(verdict.values)
    } else
      groups.set(key, {
        rule,
        strength: outcome.strength,
        together,
        basis,
        owner,
        ofTemplate,
        places: [place],
        values: [verdict.values],
      })
  }
  return [...groups.values()]
    .map(({ rule, strength, together, basis, owner, ofTemplate, places, values }): Finding => ({
      fingerprint: findingFingerprint(rule.id, together),
      rule: rule.id,
      title: rule.title,
      strength,
      message: sayAll(rule, places, values),
      why: rule.why,
      mender: ofTemplate ? 'designer' : rule.mender,
      owner,
      ...(ofTemplate ? { ofTemplate } : {}),
      effortMinutes: rule.effortMinutes * places.length,
      basis,
      places,
    }))
    .sort(compareFindings)
}

/** The sentence of a finding: that of its first place, and where else; or one that lists what each place says. */
const sayAll = (
  { several }: AnyRule,
  places: readonly FindingPlace[],
  values: readonly Readonly<Record<string, string>>[],
): string => {
  const [first, ...rest] = places
  if (several && rest.length > 0)
    return fillMessage(several.message, {
      ...values[0],
      list: listed(values.map((value) => value[several.lists] ?? '')),
    })
  return (first?.message ?? '') + alsoIn(first, rest)
}

/** `4, 5 and 6` */
const listed = (items: readonly string[]): string =>
  items.length > 1 ? `${items.slice(0, -1).join(', ')} and ${items.at(-1)}` : (items[0] ?? '')

const mostNamed = 3
/** `4, 7 – 9 and 12`: three and more in a row are a range. @param weeks in any order */
const weeksListed = (weeks: readonly number[]): string => {
  const runs: number[][] = []
  for (const week of weeks.toSorted((a, b) => a - b)) {
    const run = runs.at(-1)
    if (run?.at(-1) === week - 1) run.push(week)
    else runs.push([week])
  }
  return listed(
    runs.flatMap((run) => (run.length > 2 ? `${run[0]} – ${run.at(-1)}` : run.map(String))),
  )
}

/** ` The same in weeks 4 – 6 and 9.` A place that has several is named once, with how many. */
const alsoIn = (first: FindingPlace | undefined, rest: readonly FindingPlace[]): string => {
  if (rest.length === 0) return ''
  const nameOf = ({ place }: FindingPlace): string => `“${place.path.at(-1)}”`
  const weeks = rest.flatMap(({ place }) => place.week ?? [])
  const count = new Map<string, number>()
  for (const place of rest) count.set(nameOf(place), (count.get(nameOf(place)) ?? 0) + 1)
  const names = [...count].map(([name, times]) => (times > 1 ? `${name} (${times})` : name))
  if (first && count.size === 1 && count.has(nameOf(first)))
    return rest.length === 1
      ? ' The same once more there.'
      : ` The same ${rest.length} times more there.`
  const where =
    weeks.length === rest.length && new Set(weeks).size === weeks.length
      ? `${weeks.length === 1 ? 'week' : 'weeks'} ${weeksListed(weeks)}`
      : names.length > mostNamed
        ? `${names.slice(0, mostNamed - 1).join(', ')} and ${names.length - mostNamed + 1} more`
        : listed(names)
  return ` The same in ${where}.`
}
