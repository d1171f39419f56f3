import { countPrimes } from '../../../language/primes'
import { expression as E, letters } from '../grammar'
import { calculusParts } from './calculus'
import { takeComparison } from './comparison'
import { heightsParts } from './heights'
import { linesParts } from './lines'
import { type Around, gap, type PartName, type Rule, type Taken } from './part'
import { placesParts } from './places'
import { spansParts } from './spans'
import { sumsParts } from './sums'

export type { Around, PartName, Parts, Taken } from './part'

const heights = heightsParts()
const rulesOf = new Map<string, readonly Rule[]>()

/** The parts beside a variable; counts go before the spans that may stand beside them. */
function rulesBeside(letter: string): readonly Rule[] {
  let rules = rulesOf.get(letter)
  if (!rules) {
    const makers = [calculusParts, sumsParts, spansParts, linesParts, placesParts]
    rulesOf.set(letter, (rules = makers.flatMap((make) => make(letter))))
  }
  return rules
}

/** A curve by its name and primes, perhaps called at a place: f, f′, f(3), f'(x). */
const called = new RegExp(
  String.raw`(?<![${letters}\d_{\\])([${letters}](?:[₀-₉]{1,3}|_[A-Za-z])?)(['’′″‴"]*)(?:\s*\(\s*(${E})\s*\))?(?![${letters}'’-])`,
  'g',
)

const namesCurve = (text: string, { letter, isCurve }: Around) =>
  [...text.matchAll(new RegExp(`(?<![${letters}])[${letters}][₀-₉]*(?![${letters}])`, 'g'))].some(
    ([name]) => name === letter || isCurve(name),
  )

/** Takes the curves out of a text, with the first place that one is called at. */
function takeCurves(taken: Taken, around: Around): void {
  const { letter, isCurve } = around
  const { parts } = taken
  taken.left = taken.left.replace(
    called,
    (whole, name: string, primes: string, inside?: string) => {
      if (!isCurve(name)) return whole
      const place = inside?.trim()
      const free = place === undefined || place === letter
      if (!free && parts.place !== undefined) return whole
      // f(k(x)) is a formula, not a value.
      if (!free && namesCurve(place, around)) return whole
      parts.refs.push({ curve: name, order: countPrimes(primes) })
      if (!free) {
        parts.place = place
        taken.words.place = place
      }
      return gap
    },
  )
}

/**
 * Takes a request apart: the curves, places, spans, counts and comparisons it names, and the words
 * that are left. A part that is said twice stays among the words.
 */
export function takeParts(text: string, around: Around): Taken {
  const taken: Taken = { parts: { refs: [] }, left: text, words: {} }
  takeComparison(taken, around)
  const take = (rule: Rule) => applyRule(rule, taken, around)
  rulesBeside(around.letter).forEach(take)
  // Letters of curves stand in points and ends; only then are the curves themselves taken.
  takeCurves(taken, around)
  heights.forEach(take)
  return taken
}

/** Takes the first stretch that a rule reads; one that only looks like it is passed over. */
function applyRule(rule: Rule, taken: Taken, around: Around): void {
  const { pattern } = rule
  pattern.lastIndex = 0
  for (let match = pattern.exec(taken.left); match; match = pattern.exec(taken.left)) {
    if (takes(rule, match, taken, around)) return
    pattern.lastIndex = match.index + 1
  }
}

function takes(rule: Rule, match: RegExpExecArray, taken: Taken, around: Around): boolean {
  const before = taken.left
  taken.left = `${before.slice(0, match.index)}${gap}${before.slice(match.index + match[0].length)}`
  const found = rule.read([...match], taken, around)
  const names = Object.keys(found ?? {}) as PartName[]
  const twice = names.some((name) => name !== 'rule' && taken.parts[name] !== undefined)
  if (!found || twice) {
    taken.left = before
    return false
  }
  const { rule: earlier } = taken.parts
  Object.assign(taken.parts, found, earlier === undefined ? {} : { rule: earlier })
  for (const name of names) taken.words[name] ??= match[0].trim()
  return true
}
