/**
 * Which finding makes which others silent. A silenced requirement still counts as not met; it is only not told twice. One that
 * asks for more than the finding does is told all the same.
 * `same`: both about the same part; `module`: the silent one is expected in the module that the teller speaks of, or stands in it;
 * `course`: the teller speaks of the course as a whole.
 */
export const silence: readonly {
  teller: string
  silent: string
  scope: 'same' | 'module' | 'course'
  /** The message of the teller with which it silences nothing. */
  unless?: string
}[] = [
  { teller: 'copy-left-over', silent: 'item-name', scope: 'same' },
  { teller: 'wrong-kind', silent: 'due-missing', scope: 'same' },
  { teller: 'wrong-kind', silent: 'item-name', scope: 'same' },
  { teller: 'number-sequence', silent: 'module-name', scope: 'same' },
  { teller: 'other-term-date', silent: 'due-outside-module', scope: 'same' },
  { teller: 'due-in-break', silent: 'due-outside-module', scope: 'same' },
  { teller: 'other-term-date', silent: 'due-outside-term', scope: 'same' },
  { teller: 'other-term-date', silent: 'other-week-date', scope: 'same' },
  { teller: 'due-outside-term', silent: 'due-outside-module', scope: 'same' },
  { teller: 'due-outside-term', silent: 'schedule-disagrees', scope: 'same' },
  { teller: 'other-term-date', silent: 'schedule-disagrees', scope: 'same' },
  { teller: 'due-outside-module', silent: 'schedule-disagrees', scope: 'same' },
  { teller: 'course-reused', silent: 'other-term-date', scope: 'course' },
  { teller: 'course-reused', silent: 'due-outside-term', scope: 'course' },
  { teller: 'week-dates', silent: 'range-overlap-or-gap', scope: 'same' },
  { teller: 'week-dates', silent: 'range-nesting', scope: 'same' },
  { teller: 'range-nesting', silent: 'range-overlap-or-gap', scope: 'same' },
  { teller: 'number-sequence', silent: 'range-overlap-or-gap', scope: 'same' },
  { teller: 'class-section-in-name', silent: 'course-name', scope: 'course' },
  { teller: 'copy-left-over', silent: 'name-clash', scope: 'same' },
  { teller: 'copy-left-over', silent: 'marker-left-over', scope: 'same' },
  { teller: 'marker-left-over', silent: 'item-name', scope: 'same' },
  { teller: 'marker-left-over', silent: 'module-name', scope: 'same' },
  { teller: 'must-part-hidden', silent: 'published-in-hidden-module', scope: 'module' },
  // Of a week that stands in another's module, what is not there either is missing.
  { teller: 'module-missing', silent: 'item-missing', scope: 'module', unless: 'merged' },
  { teller: 'module-missing', silent: 'must-part-hidden', scope: 'same' },
  { teller: 'copy-left-over', silent: 'duplicate-part', scope: 'same' },
  { teller: 'sample-activity-left', silent: 'copy-left-over', scope: 'same' },
  { teller: 'twin-page', silent: 'item-missing', scope: 'same' },
  { teller: 'twin-page', silent: 'item-name', scope: 'same' },
  { teller: 'twin-page', silent: 'work-list-complete', scope: 'same' },
  { teller: 'last-in-module', silent: 'out-of-order', scope: 'same' },
  { teller: 'points-differ', silent: 'rubric-points', scope: 'same' },
  { teller: 'questions-asked', silent: 'question-points', scope: 'same' },
  { teller: 'sample-question-left', silent: 'question-points', scope: 'same' },
  { teller: 'fixed-question-altered', silent: 'question-points', scope: 'same' },
  { teller: 'points-differ', silent: 'question-points', scope: 'same' },
  { teller: 'file-missing', silent: 'syllabus-attached', scope: 'same' },
  { teller: 'wrong-kind', silent: 'file-missing', scope: 'same' },
  { teller: 'submission-type-unset', silent: 'setting-differs', scope: 'same' },
  { teller: 'wrong-kind', silent: 'notification-off', scope: 'same' },
  { teller: 'wrong-kind', silent: 'submission-type-unset', scope: 'same' },
  { teller: 'wrong-kind', silent: 'category-missing', scope: 'same' },
  { teller: 'wrong-kind', silent: 'points-differ', scope: 'same' },
  { teller: 'wrong-kind', silent: 'rubric-missing', scope: 'same' },
  { teller: 'wrong-kind', silent: 'setting-differs', scope: 'same' },
  { teller: 'block-missing', silent: 'signpost-target', scope: 'same' },
  { teller: 'module-empty', silent: 'item-missing', scope: 'module' },
  { teller: 'starter-file-left', silent: 'syllabus-attached', scope: 'same' },
  { teller: 'never-deployed', silent: 'module-missing', scope: 'course' },
  { teller: 'never-deployed', silent: 'home-page-set', scope: 'course' },
]
