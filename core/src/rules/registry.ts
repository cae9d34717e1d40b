import type { AnyRule } from './rule.ts'
import { fillInUnfilled } from './content/fill-in-unfilled.ts'
import { fillerText } from './content/filler-text.ts'
import { fixedTextAltered } from './content/fixed-text-altered.ts'
import { guidanceVisible } from './content/guidance-visible.ts'
import { houseTextOutdated } from './content/house-text-outdated.ts'
import { availabilityWindowRule } from './dates/availability-window.ts'
import { courseReused } from './dates/course-reused.ts'
import { dueInBreak } from './dates/due-in-break.ts'
import { dueMissing } from './dates/due-missing.ts'
import { dueOutsideModule } from './dates/due-outside-module.ts'
import { dueOutsideTerm } from './dates/due-outside-term.ts'
import { otherTermDate } from './dates/other-term-date.ts'
import { otherWeekDate } from './dates/other-week-date.ts'
import { rangeNesting } from './dates/range-nesting.ts'
import { rangeOverlapOrGap } from './dates/range-overlap-or-gap.ts'
import { scheduleDisagrees } from './dates/schedule-disagrees.ts'
import { timeZone } from './dates/time-zone.ts'
import { weekDates } from './dates/week-dates.ts'
import { beginLinkTarget } from './home/begin-link-target.ts'
import { homeElementMissing } from './home/home-element-missing.ts'
import { homePageSet } from './home/home-page-set.ts'
import { classSectionInName } from './names/class-section-in-name.ts'
import { courseLabel } from './names/course-label.ts'
import { courseName } from './names/course-name.ts'
import { itemName } from './names/item-name.ts'
import { markerLeftOver } from './names/marker-left-over.ts'
import { moduleName } from './names/module-name.ts'
import { nameClash } from './names/name-clash.ts'
import { numberSequence } from './names/number-sequence.ts'
import { copyLeftOver } from './structure/copy-left-over.ts'
import { itemMissing } from './structure/item-missing.ts'
import { moduleCount } from './structure/module-count.ts'
import { moduleMissing } from './structure/module-missing.ts'
import { outOfOrder } from './structure/out-of-order.ts'
import { strayItem } from './structure/stray-item.ts'
import { wrongKind } from './structure/wrong-kind.ts'
import { courseUnpublished } from './visibility/course-unpublished.ts'
import { mustPartHidden } from './visibility/must-part-hidden.ts'
import { publishedInHiddenModule } from './visibility/published-in-hidden-module.ts'
import { staffPartVisible } from './visibility/staff-part-visible.ts'

/** Every rule, in the order in which outcomes are told. */
export const rules: readonly AnyRule[] = [
  moduleMissing, itemMissing, wrongKind, outOfOrder, moduleCount, copyLeftOver, strayItem,
  courseName, courseLabel, moduleName, itemName, numberSequence, nameClash, classSectionInName, markerLeftOver,
  weekDates, otherWeekDate, rangeNesting, rangeOverlapOrGap, otherTermDate, dueMissing, dueOutsideModule, dueOutsideTerm, dueInBreak, scheduleDisagrees, availabilityWindowRule, timeZone, courseReused,
  homePageSet, homeElementMissing, beginLinkTarget,
  fillInUnfilled, guidanceVisible, fixedTextAltered, houseTextOutdated, fillerText,
  staffPartVisible, mustPartHidden, courseUnpublished, publishedInHiddenModule,
]

const byId = new Map(rules.map((rule) => [rule.id, rule]))
export const ruleById = (id: string): AnyRule | null => byId.get(id) ?? null
