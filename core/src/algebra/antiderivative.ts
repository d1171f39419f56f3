import { keyOf, mapChildren, splitCoefficient, type Tree } from '../formula/tree'
import { byRules } from './integration/rules'
import type { Search } from './integration/search'
import { isPositive } from './products'
import { cancelFreely, simplify } from './simplify'

/** More steps than this no antiderivative of a first course takes. */
const mostSteps = 600

/**
 * A function whose derivative is the given formula, or null where no rule is found for one of its
 * terms. The rules are those of a first course: powers, roots, exponentials, sines, cosines and
 * logarithms of a straight argument; partial fractions and completed squares; roots of quadratics;
 * powers and products of sines and cosines, tangents and secants; by parts; an inner function whose
 * slope is a factor; roots, exponentials, logarithms and tangents in place of a letter.
 * Logarithms take the size of their argument, so that the answer holds on both sides of a pole and
 * not across it; by tangents it holds between their poles. Source of the rules: NIST Digital Library of
 * Mathematical Functions, sections 4.10 and 4.26 (from memory); the tests differentiate what comes out.
 */
export function antiderivative(tree: Tree, variable: string): Tree | null {
  const search: Search = { variable, open: new Set(), steps: { left: mostSteps }, integrate }
  const found = integrate(cancelFreely(simplify(tree)), search)
  return found && simplify(simplify(withoutBars(cancelFreely(found))))
}

/** |u| of what is above 0 everywhere is u. */
const withoutBars = (tree: Tree): Tree => {
  const done = mapChildren(tree, withoutBars)
  const inside = done.kind === 'call' && done.name === 'abs' ? done.args[0]! : null
  return inside && isPositive(simplify(inside)) ? inside : done
}

/** A rule that comes back to what it was asked for, or has been busy for long, has no answer. */
function integrate(tree: Tree, search: Search): Tree | null {
  const key = `${search.variable} ${keyOf(splitCoefficient(tree)[1])}`
  if (search.open.has(key) || search.steps.left <= 0) return null
  search.steps.left -= 1
  search.open.add(key)
  const found = byRules(tree, search)
  search.open.delete(key)
  return found
}
