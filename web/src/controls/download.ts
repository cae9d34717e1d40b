/** Hands somebody a file that was made in the browser. */
export const download = (name: string, type: string, content: string): void => {
  const address = URL.createObjectURL(new Blob([content], { type }))
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
  URL.revokeObjectURL(address)
}
