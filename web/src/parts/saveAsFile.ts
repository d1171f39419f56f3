/** Hands something to the browser as a file to keep. */
export function saveBlob(name: string, blob: Blob) {
  const url = URL.createObjectURL(blob)
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  // Some browsers read it only after this task.
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}

/** Hands a text to the browser as a file to keep. */
export const saveAsFile = (name: string, text: string, type: string) =>
  saveBlob(name, new Blob([text], { type }))
