const shown = /\bsrc="asset:([\w.-]{1,120})"/g

/**
 * Names of the images that HTML shows out of a template, each once, in the order in which they stand: their file names in
 * HTML of a template, the names under which a platform keeps them in HTML which is sent.
 */
export const imagesIn = (html: string): string[] =>
  html.includes('src="asset:')
    ? [...new Set([...html.matchAll(shown)].map(([, name = '']) => name))]
    : []

/** HTML with the address of each such image written anew; null leaves it as it is. */
export const withImages = (html: string, to: (name: string) => string | null): string =>
  html.includes('src="asset:')
    ? html.replace(shown, (whole, name: string) => {
        const address = to(name)
        return address === null ? whole : `src="${address}"`
      })
    : html
