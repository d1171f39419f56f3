import { nameSchema } from '../vocabulary/members'

/** What the heading of a column says: a letter, what it stands for, its unit; "" where it does not. */
export interface Heading {
  letter: string
  name: string
  unit: string
}

/**
 * Reads headings as people write them: "q", "q(t)", "inflow (ML/h)", "inflow q in ML/h", "t [h]". A
 * unit stands in brackets or behind "in" or "/" at the end; a letter stands alone or before or behind
 * a word. `axis` is the letter of the places.
 */
export function readHeading(text: string, axis = ''): Heading {
  const plain = text.trim().replace(/^"(.*)"$/, '$1')
  const call = /^(\p{L}[₀-₉]?)\s*\(\s*(\p{L})\s*\)\s*/u.exec(plain)
  // In "t (s)" the letter is a unit; in "q(t)", and where a unit stands behind, it is the variable.
  const isCall = call !== null && (call[2] === axis || /^[([]/.test(plain.slice(call[0].length)))
  const called = isCall ? call : null
  const rest = called ? plain.slice(called[0].length) : plain
  const bracketed = /\s*[([]\s*([^()[\]]+?)\s*[)\]]\s*$/.exec(rest)
  const behind = bracketed ? null : /\s+in\s+(\S+)\s*$/.exec(rest)
  const unit = (bracketed ?? behind)?.[1] ?? ''
  const words = rest
    .slice(0, rest.length - ((bracketed ?? behind)?.[0].length ?? 0))
    .split(/[\s,:=]+/)
    .filter((word) => word !== '')
  const isLetter = (word: string) => nameSchema.safeParse(word).success
  const letter = called?.[1] ?? words.find(isLetter) ?? ''
  const name = words.filter((word) => word !== letter).join(' ')
  return { letter: isLetter(letter) ? letter : '', name, unit }
}
