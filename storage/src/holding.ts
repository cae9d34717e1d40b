/** A text for LIKE that holds another one somewhere, in which % and _ stand for themselves. */
export const holding = (text: string): string => `%${text.replace(/[\\%_]/g, '\\$&')}%`
