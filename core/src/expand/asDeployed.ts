import { framed, letIn } from '../allow/index.ts'
import { putBeside, styledHtml } from '../houseStyle/index.ts'
import type { KeptBlockBody, Template } from '../template/index.ts'

/**
 * What is let in of a block's HTML, with frames of the hosts that are allowed, in the house style and at its place on the page:
 * as deployment writes it.
 * @param block null for a piece of one
 */
export const asDeployed = (
  html: string,
  block: Pick<KeptBlockBody, 'beside' | 'card'> | null,
  { houseStyle, frameHosts = [] }: Pick<Template, 'houseStyle' | 'frameHosts'>,
): string => {
  const within = framed(letIn(html).html, frameHosts)
  const card = block?.card === true && houseStyle !== undefined && html !== ''
  const whole = styledHtml(card ? `<div class="house-card">${within}</div>` : within, houseStyle)
  return block?.beside === true && html !== '' ? putBeside(whole) : whole
}
