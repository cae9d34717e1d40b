/**
 * Which finding makes which others silent. A silenced requirement still counts as not met; it is only not told twice.
 * `same`: both about the same part; `module`: the silent one stands in the module that the teller speaks of;
 * `course`: the teller speaks of the course as a whole.
 */
export const silence: readonly { teller: string; silent: string; scope: 'same' | 'module' | 'course' }[] = [
  { teller: 'copy-left-over', silent: 'item-name', scope: 'same' },
  { teller: 'wrong-kind', silent: 'due-missing', scope: 'same' },
  { teller: 'wrong-kind', silent: 'item-name', scope: 'same' },
  { teller: 'number-sequence', silent: 'module-name', scope: 'same' },
  { teller: 'other-term-date', silent: 'due-outside-module', scope: 'same' },
  { teller: 'due-in-break', silent: 'due-outside-module', scope: 'same' },
  { teller: 'other-term-date', silent: 'due-outside-term', scope: 'same' },
  { teller: 'other-term-date', silent: 'other-week-date', scope: 'same' },
  { teller: 'due-outside-term', silent: 'due-outside-module', scope: 'same' },
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
  { teller: 'module-missing', silent: 'item-missing', scope: 'module' },
  { teller: 'module-missing', silent: 'must-part-hidden', scope: 'same' },
]
