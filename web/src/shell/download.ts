/** Saves something as a file of the person's own. */
export function download(content: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(content)
  link.download = name
  link.click()
  // the browser reads it a moment later
  setTimeout(() => URL.revokeObjectURL(link.href), 60_000)
}
