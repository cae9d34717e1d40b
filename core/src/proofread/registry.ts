import { activeContent } from './checks/active-content.ts'
import { alternativeTextMissing } from './checks/alternative-text-missing.ts'
import { categoryUnknown } from './checks/category-unknown.ts'
import { contradictoryPermission } from './checks/contradictory-permission.ts'
import { fieldInText } from './checks/field-in-text.ts'
import { fileNone } from './checks/file-none.ts'
import { fillInWithoutPrompt } from './checks/fill-in-without-prompt.ts'
import { guidanceNotMarked } from './checks/guidance-not-marked.ts'
import { headingSkip } from './checks/heading-skip.ts'
import { homePageIncomplete } from './checks/home-page-incomplete.ts'
import { houseStyleContrast } from './checks/house-style-contrast.ts'
import { imageNone } from './checks/image-none.ts'
import { linkToAbsentPart } from './checks/link-to-absent-part.ts'
import { namesToldApart } from './checks/names-told-apart.ts'
import { offsetUnresolved } from './checks/offset-unresolved.ts'
import { outcomeUnassessed } from './checks/outcome-unassessed.ts'
import { pageEmpty } from './checks/page-empty.ts'
import { partNeverThere } from './checks/part-never-there.ts'
import { questionText } from './checks/question-text.ts'
import { readerWithoutWords } from './checks/reader-without-words.ts'
import { rubricPointsAgree } from './checks/rubric-points.ts'
import { weightsAddUp } from './checks/weights-total.ts'
import type { ProofCheck } from './remark.ts'

/** Every check of proofreading; a new one is its file and a line here. */
export const proofChecks: readonly ProofCheck[] = [
  activeContent,
  alternativeTextMissing,
  categoryUnknown,
  contradictoryPermission,
  fieldInText,
  fileNone,
  fillInWithoutPrompt,
  guidanceNotMarked,
  headingSkip,
  homePageIncomplete,
  houseStyleContrast,
  imageNone,
  linkToAbsentPart,
  namesToldApart,
  offsetUnresolved,
  outcomeUnassessed,
  pageEmpty,
  partNeverThere,
  questionText,
  readerWithoutWords,
  rubricPointsAgree,
  weightsAddUp,
]
