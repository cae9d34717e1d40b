/** Something that can be pressed or filled in on the screen, by its name and by what it stands in. */
export interface ActOnScreen {
  name: string
  /** The row or group it stands in; empty where it stands alone. */
  within: string
  element: HTMLElement
}

const pressed =
  'button, a[href], [role="tab"], [role="menuitem"], [role="switch"], summary, input, select, textarea'
const groups =
  '[role="row"], tr, li, [data-block], fieldset, section[aria-label], aside[aria-label]'
const longest = 60

const oneLine = (text: string): string => text.replace(/[▾▸▴]/g, '').replace(/\s+/g, ' ').trim()
const short = (text: string): string =>
  text.length > longest ? `${text.slice(0, longest - 1)}…` : text

/** What a screen reader calls it; empty where it has no name. */
const nameOf = (element: HTMLElement): string => {
  const label = element.getAttribute('aria-label')
  if (label) return oneLine(label)
  const labels = 'labels' in element ? (element as HTMLInputElement).labels : null
  const [first] = labels ?? []
  const text = first
    ? ([...first.childNodes].find((node) => node.textContent?.trim())?.textContent ?? '')
    : (element.textContent ?? '')
  return oneLine(text) || oneLine(element.title)
}

const isSeen = (element: HTMLElement): boolean =>
  !element.closest('[inert]') &&
  (typeof element.checkVisibility === 'function'
    ? element.checkVisibility({ visibilityProperty: true })
    : true)

const withinOf = (element: HTMLElement, name: string): string => {
  const group = element.closest<HTMLElement>(groups)
  if (!group) return ''
  const label = group.getAttribute('aria-label')
  const said = oneLine(
    label ??
      group.querySelector(
        'legend, h2, h3, th, [role="rowheader"], [role="gridcell"], td, a, p, span',
      )?.textContent ??
      '',
  )
  return said === name ? '' : short(said)
}

/**
 * All that can be done on the screen as it stands, in its order. What is not to be pressed now, or is not seen, is left out;
 * what has the same name in the same row stands once.
 */
export const actsOnScreen = (root: HTMLElement): ActOnScreen[] => {
  const seen = new Set<string>()
  return [...root.querySelectorAll<HTMLElement>(pressed)].flatMap((element) => {
    if (element.matches(':disabled, [aria-disabled="true"], [type="hidden"]') || !isSeen(element))
      return []
    const name = short(nameOf(element))
    if (name === '') return []
    const within = withinOf(element, name)
    const id = `${name}\n${within}`
    if (seen.has(id)) return []
    seen.add(id)
    return [{ name, within, element }]
  })
}

/** Does it: a field is gone to, a menu opens, anything else is pressed. */
export const doOnScreen = (element: HTMLElement): void => {
  element.focus()
  if (element.matches('select, textarea, input:not([type="checkbox"], [type="radio"])')) return
  if (element.getAttribute('aria-haspopup') === 'menu')
    element.dispatchEvent(
      new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }),
    )
  else element.click()
}
