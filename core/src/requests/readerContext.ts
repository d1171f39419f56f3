import { differentiate } from '../algebra/differentiate'
import { readFormula } from '../calculus/readFormula'
import { simplify } from '../algebra/simplify'
import { namesIn, quotient, type Tree, whole } from '../formula/tree'
import { toText } from '../language/print'
import { createEvaluator } from '../results/evaluate'
import type { CurveRef } from '../statements/shared/slots'
import { curveMakers, freshName, readingOf } from '../study/edits/names'
import type { Study } from '../study/schema'
import { readNumber } from '../vocabulary/values'
import type { ReaderContext } from './reader/read'

/** Points that are typed with a rounded height lie on the curve all the same. */
const asTyped = 5e-4

/** What the reader has to know of a study; what takes work is worked out when it is asked for. */
export function readerContext(study: Study): ReaderContext {
  const { letter } = study.variable
  const curves = curveMakers(study).map(({ name }) => name)
  return {
    letter,
    curves,
    words: study.sliders.map((slider) => slider.name).filter((name) => /^[A-Za-z]{2}/.test(name)),
    free: (...letters) =>
      letters.find((one) => freshName(study, one) === one) ?? freshName(study, letters[0]!),
    liesOn({ curve, order }: CurveRef, { x, y }) {
      if (isCallAt(y, curve, order, x)) return true
      const [at, height] = [readNumber(x, study.sliders), readNumber(y, study.sliders)]
      if (!at.ok || !height.ok) return null
      const found = createEvaluator({ results: false, sentences: false })(study).curves.get(curve)
      if (!found?.ok) return null
      const value = found.curve.f.derivatives(at.value, order)[order]!
      if (!Number.isFinite(value)) return null
      return Math.abs(value - height.value) <= asTyped * Math.max(1, Math.abs(value))
    },
    slopeOf(line, across) {
      const tree = treeOf(line.trim().replace(/\(.*\)$/, ''), study) ?? treeOf(line, study)
      if (!tree) return null
      const slope = simplify(differentiate(tree, letter))
      if (namesIn(slope).has(letter)) return null
      return toText(across ? simplify(quotient(whole(-1), slope)) : slope)
    },
  }
}

/** The formula of a curve, or of a line as it is typed; null where it has none. */
function treeOf(line: string, study: Study): Tree | null {
  const named = createEvaluator({ results: false, sentences: false })(study).curves.get(line)
  if (named?.ok) return named.curve.formula ? named.curve.f.tree : null
  const parsed = readFormula(line, readingOf(study))
  return parsed.ok ? parsed.tree : null
}

/** Whether a height is written as the value of the curve at that place: (2, f(2)). */
function isCallAt(height: string, curve: string, order: number, place: string): boolean {
  const called = /^(\p{L}[₀-₉]*)(['’′″]*)\((.*)\)$/u.exec(height.trim())
  if (!called) return false
  const [, name, primes, inside] = called
  return name === curve && primes!.length === order && inside!.trim() === place.trim()
}
