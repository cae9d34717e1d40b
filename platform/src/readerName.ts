/** Where this stands in a page, the platform shows whoever reads it their first name. */
export const readerName = '((given name))'

/** A page as one student reads it. */
export const readBy = (html: string, firstName: string): string =>
  html.replaceAll(readerName, firstName)
