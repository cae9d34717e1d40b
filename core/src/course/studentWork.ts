/** Fields of an item that touch how handed-in work counts: left alone once students have work in it. */
export const touchesWork = (field: string): boolean =>
  ['points', 'category', 'target', 'rubric', 'work', 'questions'].includes(field) ||
  field.startsWith('work.')
