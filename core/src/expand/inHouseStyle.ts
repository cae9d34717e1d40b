import { letIn } from '../allow/index.ts'
import { putBeside, styledHtml, type HouseStyle } from '../houseStyle/index.ts'
import type { KeptBlockBody } from '../template/index.ts'

/**
 * What is let in of a block's HTML, in the house style and at its place on the page: as deployment writes it.
 * @param block null for a piece of one
 */
export const inHouseStyle = (
  html: string,
  block: Pick<KeptBlockBody, 'beside' | 'card'> | null,
  style: HouseStyle | undefined,
): string => {
  const card = block?.card === true && style !== undefined && html !== ''
  const whole = styledHtml(
    card ? `<div class="house-card">${letIn(html).html}</div>` : letIn(html).html,
    style,
  )
  return block?.beside === true && html !== '' ? putBeside(whole) : whole
}
