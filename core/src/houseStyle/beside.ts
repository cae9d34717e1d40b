/**
 * The style of what stands beside the text: a column at the right where there is room for both, at full width where there is
 * not, as on a phone. Works without a house style.
 */
const besideStyle =
  'float:right;clear:right;box-sizing:border-box;width:max(270px,min(100%,(600px - 100%)*999));margin:0 0 16px clamp(0px,(100% - 600px)*999,24px)'
const start = `<div style="${besideStyle}">`

/** HTML in a column beside what follows it. */
export const putBeside = (html: string): string => `${start}${html}</div>`

/** HTML by itself that may have been put beside something. */
export const notBeside = (html: string): string =>
  html.startsWith(start) ? html.slice(start.length, -'</div>'.length) : html

/** Ends a page on which something stands beside the text: what comes after the page begins below both. */
export const endOfBeside = '<div style="clear:both"></div>'
