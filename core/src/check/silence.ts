/**
 * Which finding makes which others silent. A silenced requirement still counts as not met; it is only not told twice.
 * `same`: both about the same part; `module`: the silent one stands in the module that the teller speaks of.
 */
export const silence: readonly { teller: string; silent: string; scope: 'same' | 'module' }[] = [
  { teller: 'copy-left-over', silent: 'item-name', scope: 'same' },
  { teller: 'wrong-kind', silent: 'due-missing', scope: 'same' },
  { teller: 'wrong-kind', silent: 'item-name', scope: 'same' },
  { teller: 'number-sequence', silent: 'module-name', scope: 'same' },
  { teller: 'other-term-date', silent: 'due-outside-module', scope: 'same' },
  { teller: 'due-in-break', silent: 'due-outside-module', scope: 'same' },
  { teller: 'must-part-hidden', silent: 'published-in-hidden-module', scope: 'module' },
  { teller: 'module-missing', silent: 'item-missing', scope: 'module' },
  { teller: 'module-missing', silent: 'must-part-hidden', scope: 'same' },
]
