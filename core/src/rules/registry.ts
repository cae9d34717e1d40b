import { fileMissing } from './files/file-missing.ts'
import { fixedFileAltered } from './files/fixed-file-altered.ts'
import { formNotFilledIn } from './files/form-not-filled-in.ts'
import { pageFileAltered } from './files/page-file-altered.ts'
import { noQuestions } from './questions/no-questions.ts'
import { sampleQuestionLeft } from './questions/sample-question-left.ts'
import { questionsAsked } from './questions/questions-asked.ts'
import { fixedQuestionAltered } from './questions/fixed-question-altered.ts'
import { questionPoints } from './questions/question-points.ts'
import { questionUnanswerable } from './questions/question-unanswerable.ts'
import { answerShown } from './questions/answer-shown.ts'
import type { AnyRule } from './rule.ts'
import { altIsFileName } from './access/alt-is-file-name.ts'
import { altMissing } from './access/alt-missing.ts'
import { captionsMissing } from './access/captions-missing.ts'
import { colourAlone } from './access/colour-alone.ts'
import { contrastInline } from './access/contrast-inline.ts'
import { formulaNotReadAloud } from './access/formula-not-read-aloud.ts'
import { headingEmpty } from './access/heading-empty.ts'
import { headingSkip } from './access/heading-skip.ts'
import { languageMissing } from './access/language-missing.ts'
import { linkTextVague } from './access/link-text-vague.ts'
import { listFaked } from './access/list-faked.ts'
import { tableWithoutHeaders } from './access/table-without-headers.ts'
import { blockEmpty } from './content/block-empty.ts'
import { blockMissing } from './content/block-missing.ts'
import { blockOrder } from './content/block-order.ts'
import { fillInConstraint } from './content/fill-in-constraint.ts'
import { fillInShapeLost } from './content/fill-in-shape-lost.ts'
import { fillInUnfilled } from './content/fill-in-unfilled.ts'
import { fillerText } from './content/filler-text.ts'
import { fixedTextAltered } from './content/fixed-text-altered.ts'
import { frameElsewhere } from './content/frame-elsewhere.ts'
import { guidanceVisible } from './content/guidance-visible.ts'
import { houseTextAltered } from './content/house-text-altered.ts'
import { houseTextOutdated } from './content/house-text-outdated.ts'
import { imagePlaceholder } from './content/image-placeholder.ts'
import { licenceStatement } from './content/licence-statement.ts'
import { promptBesideAnswer } from './content/prompt-beside-answer.ts'
import { sameFactDiffers } from './content/same-fact-differs.ts'
import { syllabusAttached } from './content/syllabus-attached.ts'
import { videoLengthNoted } from './content/video-length-noted.ts'
import { workListComplete } from './content/work-list-complete.ts'
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
import { duplicateCourse } from './deployment/duplicate-course.ts'
import { identityLost } from './deployment/identity-lost.ts'
import { neverDeployed } from './deployment/never-deployed.ts'
import { rosterMismatch } from './deployment/roster-mismatch.ts'
import { snapshotStale } from './deployment/snapshot-stale.ts'
import { untouched } from './deployment/untouched.ts'
import { versionBehind } from './deployment/version-behind.ts'
import { categoryMissing } from './grades/category-missing.ts'
import { pointsDiffer } from './grades/points-differ.ts'
import { pointsTotal } from './grades/points-total.ts'
import { practiceCounted } from './grades/practice-counted.ts'
import { rolledUpAndCounted } from './grades/rolled-up-and-counted.ts'
import { rubricMissing } from './grades/rubric-missing.ts'
import { rubricPointsRule } from './grades/rubric-points.ts'
import { sampleActivityLeft } from './grades/sample-activity-left.ts'
import { timeLimitGrace } from './grades/time-limit-grace.ts'
import { weightsTotalRule } from './grades/weights-total.ts'
import { beginLinkTarget } from './home/begin-link-target.ts'
import { homeElementMissing } from './home/home-element-missing.ts'
import { homeElementOrder } from './home/home-element-order.ts'
import { homePageSet } from './home/home-page-set.ts'
import { navigationEntries } from './home/navigation-entries.ts'
import { navigationHidden } from './home/navigation-hidden.ts'
import { navigationOrder } from './home/navigation-order.ts'
import { navigationTarget } from './home/navigation-target.ts'
import { signpostTarget } from './home/signpost-target.ts'
import { eMailNotLinked } from './links/e-mail-not-linked.ts'
import { linkBareAddress } from './links/link-bare-address.ts'
import { linkDead } from './links/link-dead.ts'
import { linkOtherCourse } from './links/link-other-course.ts'
import { linkToHiddenPart } from './links/link-to-hidden-part.ts'
import { linkToOtherPlatform } from './links/link-to-other-platform.ts'
import { linkToStaffPart } from './links/link-to-staff-part.ts'
import { toolNotAttested } from './links/tool-not-attested.ts'
import { classSectionInName } from './names/class-section-in-name.ts'
import { courseLabel } from './names/course-label.ts'
import { courseName } from './names/course-name.ts'
import { itemName } from './names/item-name.ts'
import { markerLeftOver } from './names/marker-left-over.ts'
import { moduleName } from './names/module-name.ts'
import { nameClash } from './names/name-clash.ts'
import { numberSequence } from './names/number-sequence.ts'
import { objectiveUnassessed } from './outcomes/objective-unassessed.ts'
import { objectiveUnmapped } from './outcomes/objective-unmapped.ts'
import { outcomeUncovered } from './outcomes/outcome-uncovered.ts'
import { completionWithoutTask } from './settings/completion-without-task.ts'
import { courseSettingDiffers } from './settings/course-setting-differs.ts'
import { notificationOff } from './settings/notification-off.ts'
import { openJoining } from './settings/open-joining.ts'
import { postBeforeReading } from './settings/post-before-reading.ts'
import { settingDiffers } from './settings/setting-differs.ts'
import { submissionTypeUnset } from './settings/submission-type-unset.ts'
import { copyLeftOver } from './structure/copy-left-over.ts'
import { duplicatePart } from './structure/duplicate-part.ts'
import { extraModule } from './structure/extra-module.ts'
import { fileInNoModule } from './structure/file-in-no-module.ts'
import { itemMissing } from './structure/item-missing.ts'
import { lastInModule } from './structure/last-in-module.ts'
import { moduleCount } from './structure/module-count.ts'
import { moduleEmpty } from './structure/module-empty.ts'
import { moduleMissing } from './structure/module-missing.ts'
import { nestingDepth } from './structure/nesting-depth.ts'
import { outOfOrder } from './structure/out-of-order.ts'
import { starterFileLeft } from './structure/starter-file-left.ts'
import { strayItem } from './structure/stray-item.ts'
import { tooMany } from './structure/too-many.ts'
import { twinPage } from './structure/twin-page.ts'
import { wrongKind } from './structure/wrong-kind.ts'
import { answerKeyVisible } from './visibility/answer-key-visible.ts'
import { courseUnpublished } from './visibility/course-unpublished.ts'
import { mustPartHidden } from './visibility/must-part-hidden.ts'
import { openedAhead } from './visibility/opened-ahead.ts'
import { publishedInHiddenModule } from './visibility/published-in-hidden-module.ts'
import { restrictedFileExposed } from './visibility/restricted-file-exposed.ts'
import { staffPartVisible } from './visibility/staff-part-visible.ts'

/** Every rule, in the order in which outcomes are told. */
export const rules: readonly AnyRule[] = [
  moduleMissing,
  itemMissing,
  wrongKind,
  outOfOrder,
  moduleCount,
  moduleEmpty,
  nestingDepth,
  tooMany,
  duplicatePart,
  twinPage,
  copyLeftOver,
  strayItem,
  lastInModule,
  extraModule,
  fileInNoModule,
  starterFileLeft,
  courseName,
  courseLabel,
  moduleName,
  itemName,
  numberSequence,
  nameClash,
  classSectionInName,
  markerLeftOver,
  weekDates,
  otherWeekDate,
  rangeNesting,
  rangeOverlapOrGap,
  otherTermDate,
  dueOutsideModule,
  dueOutsideTerm,
  dueInBreak,
  dueMissing,
  scheduleDisagrees,
  availabilityWindowRule,
  timeZone,
  courseReused,
  homePageSet,
  homeElementMissing,
  homeElementOrder,
  beginLinkTarget,
  signpostTarget,
  navigationEntries,
  navigationOrder,
  navigationHidden,
  navigationTarget,
  fillInUnfilled,
  fillInConstraint,
  fillInShapeLost,
  promptBesideAnswer,
  guidanceVisible,
  fillerText,
  fixedTextAltered,
  frameElsewhere,
  houseTextOutdated,
  houseTextAltered,
  blockMissing,
  blockOrder,
  blockEmpty,
  imagePlaceholder,
  syllabusAttached,
  licenceStatement,
  videoLengthNoted,
  workListComplete,
  sameFactDiffers,
  linkDead,
  linkOtherCourse,
  linkToStaffPart,
  linkToHiddenPart,
  linkBareAddress,
  eMailNotLinked,
  linkToOtherPlatform,
  toolNotAttested,
  staffPartVisible,
  mustPartHidden,
  courseUnpublished,
  publishedInHiddenModule,
  answerKeyVisible,
  openedAhead,
  restrictedFileExposed,
  weightsTotalRule,
  categoryMissing,
  pointsDiffer,
  pointsTotal,
  rolledUpAndCounted,
  sampleActivityLeft,
  rubricMissing,
  rubricPointsRule,
  practiceCounted,
  timeLimitGrace,
  noQuestions,
  sampleQuestionLeft,
  questionsAsked,
  fixedQuestionAltered,
  questionPoints,
  questionUnanswerable,
  answerShown,
  fileMissing,
  fixedFileAltered,
  formNotFilledIn,
  pageFileAltered,
  courseSettingDiffers,
  settingDiffers,
  notificationOff,
  postBeforeReading,
  submissionTypeUnset,
  completionWithoutTask,
  openJoining,
  altMissing,
  altIsFileName,
  headingSkip,
  formulaNotReadAloud,
  headingEmpty,
  linkTextVague,
  tableWithoutHeaders,
  captionsMissing,
  contrastInline,
  colourAlone,
  languageMissing,
  listFaked,
  outcomeUncovered,
  objectiveUnmapped,
  objectiveUnassessed,
  untouched,
  neverDeployed,
  versionBehind,
  identityLost,
  rosterMismatch,
  duplicateCourse,
  snapshotStale,
]

const byId = new Map(rules.map((rule) => [rule.id, rule]))
export const ruleById = (id: string): AnyRule | null => byId.get(id) ?? null
