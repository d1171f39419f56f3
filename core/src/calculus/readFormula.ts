import { name as nameTree } from '../formula/tree'
import type { Parsed } from '../language/parse'
import { parseFormula } from './parseFormula'

/** The names that a text may use. */
export interface Reading {
  variable: string
  /** Names that have a value. */
  names: readonly string[]
  /** Names of curves. */
  curves: readonly string[]
}

/** So many texts are remembered; then the memory begins anew. */
const mostRemembered = 500
const known = new Map<string, Parsed>()

/**
 * A text as it reads beside some names. Each text is read once, however many ask: the field that
 * shows it typeset, the edit that takes it, the line that is worked out. Trees never change.
 */
export function readFormula(text: string, { variable, names, curves }: Reading): Parsed {
  const key = [variable, names.join(), curves.join(), text].join('\u0000')
  let result = known.get(key)
  if (!result) {
    if (known.size >= mostRemembered) known.clear()
    // A stand-in is enough: the parser only wants to know which names are curves.
    const standIns = Object.fromEntries(curves.map((c) => [c, nameTree(variable)]))
    result = parseFormula(text, { variable, names, curves: standIns })
    known.set(key, result)
  }
  return result
}
