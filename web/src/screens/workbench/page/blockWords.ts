import type { Block } from '@wickerframe/core'

/** What the kinds of block are called. */
export const blockWords: Record<Block['kind'], string> = {
  'fixed-text': 'Fixed text',
  'fill-in': 'Fill-in',
  'guidance-note': 'Guidance note',
  'house-text': 'House text',
  title: 'Title',
  banner: 'Banner',
  signposts: 'Signposts',
  'work-list': 'Work list',
  objectives: 'Objectives',
  'key-dates': 'Key dates',
  schedule: 'Schedule',
  'contact-card': 'Contact card',
  checklist: 'Checklist',
  video: 'Video',
  reading: 'Reading',
  'assignment-brief': 'Assignment brief',
  'discussion-prompt': 'Discussion prompt',
  'take-care': 'Take care',
  'in-short': 'In short',
  table: 'Table',
  'kept-block': 'Kept block',
}
/** In the order in which they are offered: written by the template, left to the instructor, made from the course. */
export const blockGroups: readonly (readonly [string, readonly Block['kind'][]])[] = [
  [
    'Written here',
    [
      'fixed-text',
      'title',
      'objectives',
      'checklist',
      'reading',
      'video',
      'assignment-brief',
      'discussion-prompt',
      'take-care',
      'in-short',
      'table',
      'banner',
      'signposts',
    ],
  ],
  ['Left to the instructor', ['fill-in', 'guidance-note']],
  ['Kept centrally', ['house-text', 'kept-block']],
  ['Made from the course', ['work-list', 'key-dates', 'schedule', 'contact-card']],
]
