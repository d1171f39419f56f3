import { spellings } from '../../functions'
import { slipsBetween } from '../slips'
import type { Names, Token } from './token'

/** One thing that letters may be made of. */
export interface Known {
  text: string
  make: (from: number, to: number) => Token
}

/**
 * Whether a spelling is a product beside something called by a letter: with a slider a, "asin x" is
 * a · sin x, and with a curve g, "tg(t)" is t · g(t).
 */
export const isProductBeside = (letter: string, spelling: string): boolean =>
  (letter === 'a' && /^a(sin|cos|tan)$/.test(spelling)) ||
  (letter === 'g' && /^(tg|lg|ctg|cotg|arctg|arcctg)$/.test(spelling))

/** Whether a word can be a name: no function, constant or word of the language is spelled so. */
export const isFreeWord = (word: string): boolean =>
  !(word in spellings) && !takenWords.has(word.toLowerCase())
const takenWords = new Set([
  ...[
    'pi',
    'infinity',
    'inf',
    'if',
    'otherwise',
    'and',
    'or',
    'for',
    'else',
    'when',
    'where',
    'then',
  ],
  ...[
    'int',
    'integral',
    'lim',
    'from',
    'to',
    'in',
    'on',
    'is',
    'be',
    'mod',
    'deg',
    'root',
    'let',
    'not',
  ],
])

/** All that a run of letters may be made of, longest first. */
export function vocabulary({ variable, names, curves }: Names): Known[] {
  const own = new Set([variable, ...names, ...curves])
  const known: Known[] = []
  for (const [text, functionName] of Object.entries(spellings)) {
    if (own.has(text) || [...own].some((letter) => isProductBeside(letter, text))) continue
    known.push({
      text,
      make: (from, to) => ({ kind: 'function', name: functionName, spelled: text, from, to }),
    })
  }
  known.push({ text: 'pi', make: (from, to) => ({ kind: 'constant', name: 'pi', from, to }) })
  known.push({ text: 'π', make: (from, to) => ({ kind: 'constant', name: 'pi', from, to }) })
  known.push({ text: 'e', make: (from, to) => ({ kind: 'constant', name: 'e', from, to }) })
  for (const text of curves) {
    known.push({ text, make: (from, to) => ({ kind: 'curve', name: text, from, to }) })
  }
  for (const text of [variable, ...names]) {
    // A number is read with no variable at all; nothing may match the empty name.
    if (text === '' || curves.includes(text)) continue
    known.push({ text, make: (from, to) => ({ kind: 'name', name: text, from, to }) })
  }
  return known.sort((a, b) => b.text.length - a.text.length)
}

/** The function whose spelling a strange word comes closest to, if one is near. */
export function closestFunction(word: string): string | undefined {
  // Nobody misspells a function at such length, and the distance is costly for long words.
  if (word.length > 12) return undefined
  const lower = word.toLowerCase()
  return Object.keys(spellings)
    .map((text) => ({ text, distance: slipsBetween(lower, text) }))
    .filter(({ text }) => text.length > 2 || text === 'ln')
    .filter(({ text, distance }) => distance <= (text.length > 3 ? 2 : 1) || lower === text)
    .sort((a, b) => a.distance - b.distance)[0]?.text
}
