/** Whether every text in a value is well-formed Unicode without NUL: a database keeps no other. */
export function isStorable(value: unknown): boolean {
  if (typeof value === 'string') return isWellFormed(value)
  if (typeof value !== 'object' || value === null) return true
  for (const key in value) if (!isStorable((value as Record<string, unknown>)[key])) return false
  return true
}

/** Most texts hold no half of a character at all. */
const suspect = /[\0\ud800-\udfff]/
const isWellFormed = (text: string) =>
  !suspect.test(text) || (!text.includes('\0') && !/\p{Surrogate}/u.test(text))
