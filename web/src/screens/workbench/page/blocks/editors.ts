import type { ComponentType } from 'react'
import type { Block } from '@wickerframe/core'
import { AssignmentBriefEditor } from './assignment-brief.tsx'
import { BannerEditor } from './banner.tsx'
import { ChecklistEditor } from './checklist.tsx'
import { ContactCardEditor } from './contact-card.tsx'
import { DiscussionPromptEditor } from './discussion-prompt.tsx'
import { DocumentEditor } from './document.tsx'
import { FillInEditor } from './fill-in.tsx'
import { FoldEditor } from './fold.tsx'
import { FromElsewhereEditor } from './from-elsewhere.tsx'
import { HouseTextEditor } from './house-text.tsx'
import { KeptBlockEditor } from './kept-block.tsx'
import { KeyDatesEditor } from './key-dates.tsx'
import { LetterEditor } from './letter.tsx'
import { ObjectivesEditor } from './objectives.tsx'
import { OutcomeMapEditor } from './outcome-map.tsx'
import { ReadingEditor } from './reading.tsx'
import { ScheduleEditor } from './schedule.tsx'
import { SignpostsEditor } from './signposts.tsx'
import { TableEditor } from './table.tsx'
import { TextEditor } from './fixed-text.tsx'
import { TitleEditor } from './title.tsx'
import { VideoEditor } from './video.tsx'
import { WorkListEditor } from './work-list.tsx'
import type { BlockEditing } from './editing.tsx'

/** The editor of each kind of block. */
export const blockEditors: { [Kind in Block['kind']]: ComponentType<BlockEditing<Kind>> } = {
  'fixed-text': TextEditor,
  'guidance-note': TextEditor,
  'take-care': TextEditor,
  'in-short': TextEditor,
  title: TitleEditor,
  objectives: ObjectivesEditor,
  checklist: ChecklistEditor,
  reading: ReadingEditor,
  video: VideoEditor,
  'assignment-brief': AssignmentBriefEditor,
  document: DocumentEditor,
  'discussion-prompt': DiscussionPromptEditor,
  table: TableEditor,
  banner: BannerEditor,
  signposts: SignpostsEditor,
  'fill-in': FillInEditor,
  fold: FoldEditor,
  'from-elsewhere': FromElsewhereEditor,
  letter: LetterEditor,
  'outcome-map': OutcomeMapEditor,
  'house-text': HouseTextEditor,
  'work-list': WorkListEditor,
  'key-dates': KeyDatesEditor,
  schedule: ScheduleEditor,
  'contact-card': ContactCardEditor,
  'kept-block': KeptBlockEditor,
}
