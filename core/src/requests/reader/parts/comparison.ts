import { countPrimes } from '../../../language/primes'
import type { CurveRef } from '../../../statements/shared/slots'
import {
  asPattern,
  comparisons,
  expression as E,
  inFigures,
  letters,
  numberWords,
  type Relation,
  signWords,
} from '../grammar'
import { type Around, gap, type Parts, type Taken } from './part'

/** How a comparison is said, beside a variable. */
interface Patterns {
  signs: readonly (readonly [RegExp, Relation])[]
  within: RegExp
  noun: RegExp
  plain: RegExp
  comparisons: readonly (readonly [RegExp, Relation])[]
}

function patternsFor(letter: string): Patterns {
  const name = String.raw`(?<![${letters}\d_])([${letters}](?:[₀-₉]{1,3}|_[A-Za-z])?)(['’′″‴"]*)(?:\s*\(\s*${letter}\s*\))?(?![${letters}'’(-])`
  return {
    signs: signWords.map(([said, relation]) => [
      asPattern(
        String.raw`${name}\s+(?:(?:is|are|be|lies?|goes|does|equals?|(?:is\s+)?equal\s+to|=)\s+)*(?:equal\s+to\s+)?(?:${said})(?![${letters}])`,
      ),
      relation,
    ]),
    within: asPattern(
      String.raw`(?:\b(?:is|does|are)\s+${name}|${name}\s+(?:(?:is|are|lies?|stays?|be)\s+)+)\s*between\s+(${E})\s+and\s+(${E})`,
    ),
    noun: asPattern(
      String.raw`\bintersections?\b(?:\s+points?)?(?:\s+of\s+${name})?\s+(?:with|and)\s+(?:the\s+(?:horizontal\s+)?line\s+)?y\s*=\s*(${E})`,
    ),
    plain: asPattern(
      String.raw`\b(?:is|does|are)\s+${name}\s+(${E})(?=\s*(?:$|\?|\bon\b|\bfor\b|\bbetween\b|\bfrom\b|,))`,
    ),
    comparisons: comparisons.map(([said, relation]) => [
      asPattern(
        String.raw`${name}\s*(?:\s(?:is|are|be|lies?|does)\s+)*(?:${said})\s*(?:the\s+(?:value|number|curve|(?:horizontal\s+|straight\s+)?line|graph\s+of)\s+)?(?:y\s*=\s*)?(?:([${letters}]['’′″]*)\(${letter}\)|(${E})|(${numberWords}))(?![${letters}'’])`,
      ),
      relation,
    ]),
  }
}
const known = new Map<string, Patterns>()
function patternsBeside(letter: string): Patterns {
  let patterns = known.get(letter)
  if (!patterns) known.set(letter, (patterns = patternsFor(letter)))
  return patterns
}

const refAt = (found: RegExpExecArray): CurveRef => ({
  curve: found[1]!,
  order: countPrimes(found[2] ?? ''),
})
const isNegated = (found: RegExpExecArray) => /\b(?:not|n't|never)\b/i.test(found[0])
const firstIn = (pattern: RegExp, text: string) => {
  pattern.lastIndex = 0
  return pattern.exec(text)
}

/** Takes a curve and what it is compared with: "f(x) = 2", "f′ is at least k", "q positive". */
export function takeComparison(taken: Taken, around: Around): void {
  const { isCurve } = around
  const patterns = patternsBeside(around.letter)
  const text = taken.left
  for (const [pattern, relation] of patterns.signs) {
    const found = firstOf(pattern, text, isCurve)
    if (found && !isNegated(found)) {
      took(taken, found, refAt(found), { relation, target: '0' })
      return
    }
  }
  if (takeBounds(taken, patterns, isCurve)) return
  const plain = firstIn(patterns.plain, text)
  if (plain && isCurve(plain[1]!) && !isCurve(plain[3]!)) {
    took(taken, plain, refAt(plain), { relation: '=', target: plain[3]!.trim() })
    return
  }
  for (const [pattern, relation] of patterns.comparisons) {
    const found = firstOf(pattern, text, isCurve)
    if (!found) continue
    const target = found[3] ?? found[4] ?? inFigures(found[5]!)
    // "f is a" begins a sentence about something else.
    if (relation === '=' && /\b(?:is|are|be|of)\s+[a-zα-ω]$/i.test(found[0]) && !isCurve(target))
      continue
    took(taken, found, refAt(found), { relation, target: target.trim() })
    return
  }
}

/** "f is between 0 and 2", and the intersection of f with the line y = 2. */
function takeBounds(taken: Taken, patterns: Patterns, isCurve: Around['isCurve']): boolean {
  const text = taken.left
  const within = firstIn(patterns.within, text)
  if (within) {
    const [, before, primesBefore, after, primesAfter, low, high] = within
    const ref = { curve: before ?? after!, order: countPrimes(primesBefore ?? primesAfter ?? '') }
    if (isCurve(ref.curve) && !isCurve(low!)) {
      took(taken, within, ref, { relation: '>', target: low!, below: high! })
      return true
    }
  }
  const noun = firstIn(patterns.noun, text)
  if (!noun || (noun[1] !== undefined && !isCurve(noun[1]))) return false
  taken.left = `${text.slice(0, noun.index)}${gap}${text.slice(noun.index + noun[0].length)}`
  taken.words.compared = noun[0]
  if (noun[1] !== undefined) taken.parts.refs.push(refAt(noun))
  taken.parts.compared = { relation: '=', target: noun[3]! }
  return true
}

/** The first place where a pattern begins with a curve; "x is f" begins with none. */
function firstOf(
  pattern: RegExp,
  text: string,
  isCurve: Around['isCurve'],
): RegExpExecArray | null {
  pattern.lastIndex = 0
  for (let found = pattern.exec(text); found; found = pattern.exec(text)) {
    if (isCurve(found[1]!)) return found
    pattern.lastIndex = found.index + 1
  }
  return null
}

function took(
  taken: Taken,
  found: RegExpExecArray,
  ref: CurveRef,
  compared: NonNullable<Parts['compared']>,
): void {
  const { left: text, parts, words } = taken
  taken.left = `${text.slice(0, found.index)}${gap}${text.slice(found.index + found[0].length)}`
  words.compared = found[0]
  parts.refs.push(ref)
  parts.compared = compared
}
