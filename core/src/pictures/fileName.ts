/** Names that some systems keep for themselves. */
const kept = /^(?:con|prn|aux|nul|com\d|lpt\d)$/i
const longest = 80

/**
 * A name for a file from a title: safe on every system. Letters of all scripts and figures stay, what
 * is between them becomes one hyphen; without any the name is “study”.
 */
export function fileNameOf(title: string, extension: string): string {
  const name = [...title.normalize('NFC').replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')]
    .slice(0, longest)
    .join('')
    .replace(/^-+|-+$/g, '')
  const safe = name === '' || kept.test(name) ? `study${name === '' ? '' : `-${name}`}` : name
  return `${safe}.${extension}`
}
