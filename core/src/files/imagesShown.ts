const shown = /\bsrc="asset:([\w.-]{1,120})"/g

/** HTML with the address of each image that it shows out of a template written anew; null leaves it as it is. */
export const withImages = (html: string, to: (name: string) => string | null): string =>
  html.includes('src="asset:')
    ? html.replace(shown, (whole, name: string) => {
        const address = to(name)
        return address === null ? whole : `src="${address}"`
      })
    : html
