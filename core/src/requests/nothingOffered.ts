import type { Request } from '../statements/contract'
import { takenNames, wordsAfter } from '../statements/shared/slots'

const readingsWords = ['points', 'measured points', 'readings', 'data', 'csv', 'measurements']
const curveWords = [
  'curve',
  'new curve',
  'another curve',
  'function',
  'formula',
  'level',
  'constant',
]
const twoCurveWords = [
  'between',
  'area between',
  'intersection',
  'intersections',
  'meet',
  'compare',
]

const longestTold = 60
const clipped = (text: string) =>
  text.length > longestTold ? `${text.slice(0, longestTold)}…` : text

/** Why nothing is offered for what was typed, and what to type instead. */
export function nothingOffered(request: Request): string {
  const { text, curves, variable } = request
  const asks = (words: readonly string[]) => wordsAfter(text, ...words) !== null
  const taken = /^(?:let\s+|given\s+)?(\p{L}[₀-₉]*)\s*['’′″]{0,2}\s*(?:\(\s*\p{L}\s*\))?\s*=/u.exec(
    text,
  )?.[1]
  const free = ['r', 'g', 'p', 'k'].find((n) => !takenNames(request).has(n)) ?? 'w'
  const example = `let ${free}(${variable.letter}) = …`
  if (taken !== undefined && curves.some((c) => c.name === taken)) {
    return `There is a curve ${taken} already: change its formula where it stands, or give the new one another letter, ${example}`
  }
  if (taken !== undefined && [...request.sliders, ...request.otherSliders].includes(taken)) {
    return `${taken} is a slider, and what is built on it would change: give the curve another letter, ${example}`
  }
  if (asks(readingsWords)) {
    return 'Readings from a file or a list come in by the button on the right.'
  }
  if (/\bn\s*=\s*\d|\d\s+(?:strip|rectangle)/i.test(text)) {
    return 'Strips are counted from 1 to 10,000.'
  }
  if (asks(curveWords)) return `A new curve begins with its name: ${example}`
  if (asks(twoCurveWords) && curves.length < 2) {
    return `That takes a second curve: ${example}`
  }
  return `Nothing fits “${clipped(text)}” yet. Try tangent, secant, where ${curves[0]?.name ?? 'f'}′ = 2, table, area, or ${example}`
}
