import { z } from 'zod'
import { addDays } from '../../calendar/index.ts'
import { type Change, type CourseChild, isShown } from '../../course/index.ts'
import type { ExpectedPart } from '../../expand/index.ts'
import type { CheckContext } from '../context.ts'
import { aboutPart, defineRule, type Verdict } from '../rule.ts'

export const mustPartHidden = defineRule({
  id: 'must-part-hidden',
  group: 'visibility',
  title: 'What students need is open when they need it',
  why: 'Students sit before a week that has begun and cannot open it.',
  untold:
    'Parts that are not needed yet, and courses that are not published, which have a rule of their own. What the pages of a part link to is not opened with it.',
  strength: 'must',
  parameters: z.strictObject({ noticeDays: z.number().int().min(0).max(60).default(7) }),
  mender: 'instructor',
  effortMinutes: 1,
  messages: {
    module: 'Students cannot open “{module}”, which they need since {need}: {why}.',
    items: 'In “{module}” students cannot open {items}, which they need since {need}.',
  },
  *check(context, { noticeDays }): Generator<Verdict> {
    if (!context.course.published) return
    for (const module of context.parts) {
      if (module.kind !== 'module' || module.audience !== 'students') continue
      const subject = aboutPart(module)
      const musts = module.items.filter(
        (item) =>
          item.kind !== 'module' && item.strength === 'must' && item.audience === 'students',
      )
      const found = context.moduleFor(module)
      if (module.inBreak || musts.length === 0) {
        yield { subject, outcome: 'inapplicable' }
        continue
      }
      if (!found) {
        yield { subject, outcome: 'absent' }
        continue
      }
      const need = context.needOf(module)
      const starts = module.week?.first ?? context.openingDay
      const closed = musts.flatMap((part) => {
        const there = context.itemFor(part)
        return there && !opensBy(context, starts, there.item) ? [there.item.name] : []
      })
      const moduleClosed = !opensBy(context, starts, found)
      if (!moduleClosed && closed.length === 0) yield { subject, outcome: 'passed' }
      else if (!context.reached(need)) {
        const noticed = context.reached(addDays(need, -noticeDays))
        yield noticed
          ? { subject, outcome: 'not-due-yet', dueOn: need }
          : { subject, outcome: 'inapplicable' }
      } else {
        const failed = {
          subject,
          outcome: 'failed',
          itemId: found.id,
          expected: `open from ${need}`,
        } as const
        const seen = found.staffOnly
          ? 'it is for staff only'
          : found.published
            ? `it opens ${found.opensAt === null ? 'never' : context.dateOf(found.opensAt)}`
            : 'it is hidden'
        if (moduleClosed)
          yield {
            ...failed,
            message: 'module',
            values: { module: found.name, need, why: seen },
            evidence: [{ kind: 'value', text: seen }],
          }
        else
          yield {
            ...failed,
            message: 'items',
            values: {
              module: found.name,
              items: closed.map((name) => `“${name}”`).join(', '),
              need,
            },
            evidence: closed.map((name) => ({ kind: 'words', text: name }) as const),
          }
      }
    }
  },
  mend(verdict, context): Change[] {
    if (verdict.subject.about !== 'part') return []
    const { part } = verdict.subject
    const found = context.moduleFor(part)
    const starts = part.week?.first ?? context.openingDay
    if (!found) return []
    // A date on which it opened, or opens in time, is right and stays.
    const open = (of: CourseChild) => ({
      published: true,
      ...(of.staffOnly ? { staffOnly: false } : {}),
      ...(opensInTime(context, starts, of.opensAt) ? {} : { opensAt: null }),
    })
    const items = part.items.flatMap((inner: ExpectedPart) => {
      const there = context.itemFor(inner)
      return there &&
        inner.strength === 'must' &&
        inner.audience === 'students' &&
        !opensBy(context, starts, there.item)
        ? [{ change: 'set-item', id: there.item.id, fields: open(there.item) } as const]
        : []
    })
    return [
      ...(opensBy(context, starts, found)
        ? []
        : [{ change: 'set-module', id: found.id, fields: open(found) } as const]),
      ...items,
    ]
  },
})

/** Whether an opening, if there is one, comes by the first day of the week, or has come by now. */
const opensInTime = (context: CheckContext, starts: string, opensAt: string | null): boolean =>
  opensAt === null || context.dateOf(opensAt) <= starts || context.reached(context.dateOf(opensAt))

/** Whether something is shown to students and open by the first day of its week, or by now. */
const opensBy = (context: CheckContext, starts: string, of: CourseChild): boolean =>
  isShown(of) && opensInTime(context, starts, of.opensAt)
