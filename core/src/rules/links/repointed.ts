/**
 * A page with one address of its links written anew, every other byte as it was; null where the address does not stand
 * in it as an attribute's value.
 */
export const repointed = (html: string, href: string, to: string): string | null => {
  const written = [href, href.replaceAll('&', '&amp;')]
  for (const address of written)
    for (const quote of ['"', "'"]) {
      const attribute = `href=${quote}${address}${quote}`
      if (html.includes(attribute))
        return html.replaceAll(attribute, () => `href=${quote}${to}${quote}`)
    }
  return null
}
