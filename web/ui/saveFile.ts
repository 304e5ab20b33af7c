/** Handing a file to the person at the screen. */

/** Saves a file under a name. */
export function saveFile(name: string, content: string | Uint8Array | Blob, type: string): void {
  const url = URL.createObjectURL(new Blob([content as BlobPart], { type }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  // Some browsers fetch the file only after the click has returned.
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}
