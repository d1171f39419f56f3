import { antiderivative } from '../algebra/antiderivative'
import { substitute } from '../algebra/curves'
import { withKnownValues } from '../algebra/knownValues'
import { placeOfSplit } from '../calculus/areaTree'
import type { Integral } from '../calculus/integrate'
import { compileTree, type RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { decimalOfNumber } from '../arithmetic/rational'
import { budgetOf, finish } from '../features/budget'
import { lookAtPlace } from '../features/place/placeFacts'
import type { Split } from '../features/split'
import { stretchesOf } from '../features/splits'
import { exactly, negate, quotient, sum, type Tree, whole } from '../formula/tree'
import { closedForm, type ExactForm, exactNumber, readableFunctions } from './exactForms'

/** An end of a span: its value, and the number that it is as a formula; the decimal of the value where that is null. */
export interface End {
  value: number
  exact: Tree | null
}

/** Room for the roundings of both sides in the check below. */
const slack = 1e-11
/** Boxes that may be looked at for the places at which the formula changes. */
const boxes = 600
/** More parts than this between two ends are not put together. */
const mostParts = 40

/**
 * The area under a curve from end to end as a number in exact form, such as 20/3, ln 3 or e − 1: an
 * antiderivative of each part on which one formula holds, taken at the ends of that part. Its proof is
 * the rule it was found by, that it is bounded and unbroken on each part, as its enclosure shows (so
 * that no pole lies between the ends), and that it agrees with the area by quadrature; null where one of
 * these is missing, where no rule fits, or where the form is too long to read or says no more than the
 * decimals.
 */
export function exactArea(
  f: RealFunction,
  from: End,
  to: End,
  area: Integral,
  decimals: number,
): ExactForm | null {
  const tree = areaTree(f, from, to, area)
  return tree && closedForm(tree, decimals, readableFunctions)
}

/** The same as a formula without names, whether or not it is short. */
export function exactAreaNumber(f: RealFunction, from: End, to: End, area: Integral): Tree | null {
  const tree = areaTree(f, from, to, area)
  return tree && exactNumber(tree, readableFunctions)
}

/** The average over the span: the same area over the distance of the ends. */
export function exactAverageNumber(
  f: RealFunction,
  from: End,
  to: End,
  area: Integral,
): Tree | null {
  const tree = areaTree(f, from, to, area)
  if (!tree) return null
  const width = sum(treeOf(to), negate(treeOf(from)))
  const number = exactNumber(tree, readableFunctions) ?? tree
  const terms = number.kind === 'sum' ? number.terms : [number]
  // Each term of a sum is divided on its own: 89/18 − 4 cos(9)/9.
  const average = sum(whole(0), ...terms.map((term) => quotient(term, width)))
  return exactNumber(average, readableFunctions)
}

const treeOf = (end: End): Tree => end.exact ?? exactly(decimalOfNumber(end.value))

const known = new WeakMap<Tree, Map<string, Tree | null>>()
/** While an end of a span is dragged the curve is the same. */
function antiderivativeOf(tree: Tree, variable: string): Tree | null {
  let kept = known.get(tree)
  if (!kept) known.set(tree, (kept = new Map<string, Tree | null>()))
  let found = kept.get(variable)
  if (found === undefined) kept.set(variable, (found = antiderivative(tree, variable)))
  return found
}

/** The sum over all parts of the differences of their antiderivatives, where it is proven to be the area. */
function areaTree(f: RealFunction, from: End, to: End, area: Integral): Tree | null {
  if (!Number.isFinite(area.value)) return null
  if (from.value === to.value) return whole(0)
  const parts = partsOf(f, from, to)
  if (!parts) return null
  const terms: Tree[] = []
  let size = 1
  for (const { tree, from: a, to: b } of parts) {
    const found = antiderivativeOf(tree, f.variable)
    const part = found && differenceOf(found, f.variable, a, b)
    if (!part) return null
    terms.push(part.tree)
    size = Math.max(size, part.size)
  }
  const total = sum(whole(0), ...terms)
  const value = compileTree(total).value(0)
  return Math.abs(value - area.value) <= area.errorBound + slack * size ? total : null
}

interface Part {
  tree: Tree
  from: End
  to: End
}

const cut = new WeakMap<RealFunction, Map<string, Part[] | null>>()

/** The formulas that hold between the ends, in order; null where a place between them has no exact form. */
function partsOf(f: RealFunction, from: End, to: End): Part[] | null {
  const tree = withValues(f.tree, f.parameters)
  if (from.value > to.value) {
    const turned = partsOf(f, to, from)
    return turned && [...turned].reverse().map((p) => ({ ...p, from: p.to, to: p.from }))
  }
  const key = `${from.value} ${to.value}`
  let kept = cut.get(f)
  if (!kept) cut.set(f, (kept = new Map<string, Part[] | null>()))
  let found = kept.get(key)
  if (found === undefined) {
    found = cutAnew(tree, f.variable, from, to)
    kept.set(key, found)
  }
  return found && withEnds(found, from, to)
}

/** Ends of one value may be typed in two ways. */
const withEnds = (parts: readonly Part[], from: End, to: End): Part[] =>
  parts.map((part, i) => ({
    tree: part.tree,
    from: i === 0 ? from : part.from,
    to: i === parts.length - 1 ? to : part.to,
  }))

function cutAnew(tree: Tree, variable: string, from: End, to: End): Part[] | null {
  const { splits, stretches, unresolved } = finish(
    stretchesOf(tree, variable, from.value, to.value, budgetOf(boxes)),
  )
  if (unresolved.length > 0 || stretches.length === 0 || stretches.length > mostParts) return null
  const parts: Part[] = []
  for (const { tree: own, from: lo, to: hi } of stretches) {
    if (!own) return null
    const left = parts.length === 0 ? from : endAt(splits, lo, variable)
    const last = hi === to.value
    const right = last ? to : endAt(splits, hi, variable)
    if (!left || !right) return null
    parts.push({ tree: own, from: left, to: right })
  }
  const first = stretches[0]!
  const end = stretches.at(-1)!
  // A split at an end of the span leaves the typed end in its place.
  const reaches = (x: number, typed: number) =>
    x === typed ||
    splits.some(({ enclosure: e }) => e.lo <= typed && typed <= e.hi && e.lo <= x && x <= e.hi)
  if (!reaches(first.from, from.value) || !reaches(end.to, to.value)) return null
  parts[parts.length - 1] = { ...parts.at(-1)!, to }
  return merged(parts)
}

/** Parts beside each other on which one formula holds are one. */
function merged(parts: readonly Part[]): Part[] {
  const out: Part[] = []
  for (const part of parts) {
    const last = out.at(-1)
    if (last && last.tree === part.tree) out[out.length - 1] = { ...last, to: part.to }
    else out.push(part)
  }
  return out
}

/** The exact place of a split of which one end is known. */
function endAt(splits: readonly Split[], x: number, variable: string): End | null {
  const split = splits.find(({ enclosure }) => enclosure.lo === x || enclosure.hi === x)
  const exact = split ? placeOfSplit(split, variable) : null
  return exact && { value: compileTree(exact).value(0), exact }
}

/** F(b) − F(a), with what F tends to where it has no value; null where F may break between them. */
function differenceOf(
  found: Tree,
  variable: string,
  a: End,
  b: End,
): { tree: Tree; size: number } | null {
  const f = compileTree(found, { variable })
  const [lo, hi] = [Math.min(a.value, b.value), Math.max(a.value, b.value)]
  const whole = f.enclose(lo, hi)
  const isBounded = whole.every(Number.isFinite)
  const inward = (hi - lo) * 1e-9
  const inside = isBounded ? whole : f.enclose(lo + inward, hi - inward)
  if (!inside.every(Number.isFinite)) return null
  const at = (end: End): Tree | null => {
    const place = treeOf(end)
    const value = withKnownValues(substitute(found, variable, place))
    if (Number.isFinite(compileTree(value).value(0))) return value
    const facts = lookAtPlace(f, end.value, end.exact)
    const side = end.value === lo ? facts.right : facts.left
    return side.limit?.kind === 'value' && side.limit.exact ? side.limit.exact : null
  }
  const [left, right] = [at(a), at(b)]
  if (!left || !right) return null
  const size = Math.max(...inside.map(Math.abs))
  return { tree: sum(right, negate(left)), size }
}
