import { countPrimes } from '../../../language/primes'
import type { CurveRef } from '../../../statements/shared/slots'
import {
  asPattern,
  comparisons,
  expression as E,
  inFigures,
  letters,
  numberWords,
  signWords,
} from '../grammar'
import { type Around, gap, type Parts, type Taken } from './part'

/** Takes a curve and what it is compared with: "f(x) = 2", "f′ is at least k", "q positive". */
export function takeComparison(taken: Taken, { letter, isCurve }: Around): void {
  const text = taken.left
  const name = String.raw`(?<![${letters}\d_])([${letters}](?:[₀-₉]{1,3}|_[A-Za-z])?)(['’′″‴"]*)(?:\s*\(\s*${letter}\s*\))?(?![${letters}'’(-])`
  const refAt = (found: RegExpExecArray): CurveRef => ({
    curve: found[1]!,
    order: countPrimes(found[2] ?? ''),
  })
  const negated = (found: RegExpExecArray) => /\b(?:not|n't|never)\b/i.test(found[0])
  for (const [said, relation] of signWords) {
    const pattern = asPattern(
      String.raw`${name}\s+(?:(?:is|are|be|lies?|goes|does|equals?|(?:is\s+)?equal\s+to|=)\s+)*(?:equal\s+to\s+)?(?:${said})(?![${letters}])`,
    )
    const found = firstOf(pattern, text, isCurve)
    if (found && !negated(found)) {
      took(taken, found, refAt(found), { relation, target: '0' })
      return
    }
  }
  const within = asPattern(
    String.raw`(?:\b(?:is|does|are)\s+${name}|${name}\s+(?:(?:is|are|lies?|stays?|be)\s+)+)\s*between\s+(${E})\s+and\s+(${E})`,
  ).exec(text)
  if (within) {
    const [, before, primesBefore, after, primesAfter, low, high] = within
    const ref = { curve: before ?? after!, order: countPrimes(primesBefore ?? primesAfter ?? '') }
    if (isCurve(ref.curve) && !isCurve(low!)) {
      took(taken, within, ref, { relation: '>', target: low!, below: high! })
      return
    }
  }
  // "intersection of f with the line y = 2"
  const noun = asPattern(
    String.raw`\bintersections?\b(?:\s+points?)?(?:\s+of\s+${name})?\s+(?:with|and)\s+(?:the\s+(?:horizontal\s+)?line\s+)?y\s*=\s*(${E})`,
  ).exec(text)
  if (noun && (noun[1] === undefined || isCurve(noun[1]))) {
    taken.left = `${text.slice(0, noun.index)}${gap}${text.slice(noun.index + noun[0].length)}`
    taken.words.compared = noun[0]
    if (noun[1] !== undefined) taken.parts.refs.push(refAt(noun))
    taken.parts.compared = { relation: '=', target: noun[3]! }
    return
  }
  const plain = asPattern(
    String.raw`\b(?:is|does|are)\s+${name}\s+(${E})(?=\s*(?:$|\?|\bon\b|\bfor\b|\bbetween\b|\bfrom\b|,))`,
  ).exec(text)
  if (plain && isCurve(plain[1]!) && !isCurve(plain[3]!)) {
    took(taken, plain, refAt(plain), { relation: '=', target: plain[3]!.trim() })
    return
  }
  for (const [said, relation] of comparisons) {
    const pattern = asPattern(
      String.raw`${name}\s*(?:\s(?:is|are|be|lies?|does)\s+)*(?:${said})\s*(?:the\s+(?:value|number|curve|(?:horizontal\s+|straight\s+)?line|graph\s+of)\s+)?(?:y\s*=\s*)?(?:([${letters}]['’′″]*)\(${letter}\)|(${E})|(${numberWords}))(?![${letters}'’])`,
    )
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

/** The first place where a pattern begins with a curve; "x is f" begins with none. */
function firstOf(
  pattern: RegExp,
  text: string,
  isCurve: Around['isCurve'],
): RegExpExecArray | null {
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
