import { assignmentBrief } from './kinds/assignment-brief.ts'
import { banner } from './kinds/banner.ts'
import { checklist } from './kinds/checklist.ts'
import { contactCard } from './kinds/contact-card.ts'
import { discussionPrompt } from './kinds/discussion-prompt.ts'
import { document } from './kinds/document.ts'
import { fillIn } from './kinds/fill-in.ts'
import { fixedText } from './kinds/fixed-text.ts'
import { fromElsewhere } from './kinds/from-elsewhere.ts'
import { guidanceNote } from './kinds/guidance-note.ts'
import { fold } from './kinds/fold.ts'
import { houseText } from './kinds/house-text.ts'
import { inShort } from './kinds/in-short.ts'
import { keyDates } from './kinds/key-dates.ts'
import { letter } from './kinds/letter.ts'
import { objectives } from './kinds/objectives.ts'
import { outcomeMap } from './kinds/outcome-map.ts'
import { reading } from './kinds/reading.ts'
import { schedule } from './kinds/schedule.ts'
import { signposts } from './kinds/signposts.ts'
import { table } from './kinds/table.ts'
import { takeCare } from './kinds/take-care.ts'
import { title } from './kinds/title.ts'
import { video } from './kinds/video.ts'
import { workList } from './kinds/work-list.ts'

/** Every kind of block that can be kept, in the order in which they are offered. A kind is one file, and a line here. */
export const definedKinds = [
  fixedText,
  title,
  objectives,
  checklist,
  reading,
  video,
  fromElsewhere,
  document,
  assignmentBrief,
  discussionPrompt,
  letter,
  takeCare,
  inShort,
  fold,
  table,
  banner,
  signposts,
  fillIn,
  guidanceNote,
  houseText,
  workList,
  keyDates,
  schedule,
  outcomeMap,
  contactCard,
] as const
