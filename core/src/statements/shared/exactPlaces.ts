import { differentiate } from '../../algebra/differentiate'
import { exactZero } from '../../algebra/exactZeros/exactZeros'
import { simplify } from '../../algebra/simplify'
import type { RealFunction } from '../../evaluate/compile'
import { steadyValue } from '../../algebra/steady'
import { withValues } from '../../evaluate/withValues'
import { criticalParts } from '../../features/criticalParts'
import type { Extreme, Feature } from '../../features/examination'
import { compileTree } from '../../evaluate/compile'
import type { Solutions } from '../../features/solve'
import { negate, sum, type Tree } from '../../formula/tree'
import { toPlain } from '../../language/print'
import { exactNumber, readableFunctions } from '../../vocabulary/exactForms'
import { formatCertain, formatNotZero, formatNumber } from '../../vocabulary/numbers'
import { plainDecimal, tellNumber, type Told } from '../../vocabulary/told'
import { exactRational } from '../../evaluate/exactRational'
import { placeIs } from './said'
import { numberSaid, rounded, treeSaid } from './said'
import { placeOf, valueTree } from './toldNumbers'

/** How many derivatives a place may be a zero of. */
const orders = 3

const trees = new WeakMap<RealFunction, readonly Tree[]>()

/** A function and its derivatives, as far as a place of it may be a zero of them. */
function treesOf(f: RealFunction): readonly Tree[] {
  let found = trees.get(f)
  if (!found) {
    const all = [simplify(withValues(f.tree, f.parameters))]
    for (let k = 0; k < orders; k++) all.push(differentiate(all[k]!, f.variable))
    found = all
    trees.set(f, found)
  }
  return found
}

type Enclosed = Pick<Feature, 'enclosure' | 'proven'>

/**
 * The exact number of a place of a function that is enclosed as its only one of its kind: a zero of the
 * function or of one of its derivatives, or a place where a formula in it vanishes, such as that
 * between two bars. Null where no rule leads to it, or where the place is not proven.
 */
export function exactPlace(f: RealFunction, { enclosure, proven }: Enclosed): Tree | null {
  if (!proven) return null
  const [lo, hi] = enclosure
  const box = { lo, hi }
  const plain = lo === hi ? placeOf(lo).tree : null
  // A double that is the place itself is written as it is.
  if (plain) return plain
  for (const tree of treesOf(f)) {
    const found = exactZero(tree, f.variable, box)
    if (found && vanishes(tree, f.variable, box)) return found
  }
  const around = { lo: lo - Math.abs(lo) * 1e-9 - 1e-12, hi: hi + Math.abs(hi) * 1e-9 + 1e-12 }
  for (const part of criticalParts(treesOf(f)[0]!, around, f.variable).parts) {
    const found = exactZero(part, f.variable, box)
    if (found) return found
  }
  return null
}

const exactly = new WeakMap<Solutions, Map<number, Tree | null>>()

/** A solution with the number that it is, where that is known. */
export type ExactOf = (solution: Enclosed & { x: number }) => Tree | null

/** The exact number of a solution of f = goal, by the difference of both sides; worked out once. */
export function exactSolutions(f: RealFunction, goal: Tree, found: Solutions): ExactOf {
  const known = exactly.get(found) ?? new Map<number, Tree | null>()
  exactly.set(found, known)
  let gap: Tree | undefined
  return ({ x, enclosure, proven }) => {
    let exact = known.get(x)
    if (exact === undefined) {
      gap ??= simplify(sum(withValues(f.tree, f.parameters), negate(goal)))
      const [lo, hi] = enclosure
      exact = !proven ? null : lo === hi ? placeOf(lo).tree : exactZero(gap, f.variable, { lo, hi })
      known.set(x, exact)
    }
    return exact
  }
}

/** Whether a formula may be 0 on a box, and is not 0 all around it. */
function vanishes(tree: Tree, variable: string, { lo, hi }: { lo: number; hi: number }): boolean {
  const [least, most] = compileTree(tree, { variable }).enclose(lo, hi)
  return !(least > 0 || most < 0)
}

/** A place and a value as they are read: in an output as they are, in a column with its decimals. */
export interface Shown {
  x: string
  value: string
  cells: readonly [x: string, value: string]
  /** In running text: exact, as a form with its digits behind it, or behind ≈. */
  said: Readonly<Record<'x' | 'value', string>>
  /** Both exactly, where a form says more than a short decimal. */
  exactly: string | null
}

/** A place that is typed, such as an end of a span, is what was typed. */
export function shownFeature(
  f: RealFunction,
  { x, enclosure, value, proven }: Feature,
  decimals: number,
  typed: Tree | null = null,
): Shown {
  const place = typed ?? exactPlace(f, { enclosure, proven })
  const hasValue = Number.isFinite(value)
  if (place) {
    const told = tellNumber(place, decimals, readableFunctions)
    const height = hasValue ? heightAt(f, place, value, decimals) : null
    return {
      x: told.text,
      value: height ? height.text : '—',
      cells: [cellOf(told, decimals), height ? cellOf(height, decimals) : '—'],
      said: { x: numberSaid(told, decimals), value: height ? numberSaid(height, decimals) : '—' },
      exactly: pointText(place, height && valueTree(f, place), decimals),
    }
  }
  const shown = formatCertain(enclosure, decimals)
  const at = { text: shown.text, certain: shown.certain && proven }
  const height = hasValue ? roundedHeight(f, { x, enclosure, value, proven }, decimals) : null
  const texts = [columnText(at), height ? columnText(height) : '—'] as const
  const said = { x: rounded(at.text), value: height ? rounded(height.text) : '—' }
  return { x: texts[0], value: texts[1], cells: texts, said, exactly: null }
}

/** The value of an extreme as it is read: exactly where it is known and short. */
export const extremeText = (f: RealFunction, { at }: Extreme, decimals: number): string =>
  at[0] ? shownFeature(f, at[0], decimals).value : '—'

/** In an output or a column, where all are rounded, only that its digits are not certain. */
const columnText = ({ text, certain }: { text: string; certain: boolean }) =>
  certain ? text : rounded(text)

/** In a column all numbers have the same decimals, but for one that would read 0. */
const cellOf = ({ value, text, certain }: Told, decimals: number) => {
  if (!certain) return text
  return /[⁰¹²³⁴⁵⁶⁷⁸⁹E]/.test(text) ? text : formatNotZero(value, decimals)
}

/** The value at an exact place; at a break that of the function itself, which a formula may not tell. */
function heightAt(f: RealFunction, place: Tree, known: number, decimals: number): Told {
  const told = tellNumber(valueTree(f, place), decimals, readableFunctions)
  const near = Math.abs(told.value - known) <= 1e-6 * Math.max(1, Math.abs(known))
  return told.certain && near
    ? told
    : { value: known, text: formatNumber(known, decimals), certain: false }
}

function roundedHeight(f: RealFunction, feature: Feature, decimals: number) {
  const [lo, hi] = feature.enclosure
  const [least, greatest] = f.enclose(lo, hi)
  // Across a break the enclosure holds both sides; the value itself is what is shown then.
  const isTold = Number.isFinite(least) && Number.isFinite(greatest) && greatest - least < 1e-6
  const steady = steadyValue(f, feature.x, feature.value)
  const isSteady = isTold && steady >= least && steady <= greatest
  const shown = isSteady
    ? formatCertain(nearly(steady, least, greatest), decimals)
    : formatCertain(isTold ? [least, greatest] : [steady, steady], decimals)
  const isZero = steady === 0 || crossesZero(f, feature)
  const reads = /[1-9]/.test(shown.text) || isZero ? shown.text : formatNotZero(steady, decimals)
  return { text: reads, certain: shown.certain && feature.proven }
}

/** Whether a value is 0 within the place's enclosure: what it is beside 0 is the place's rounding. */
function crossesZero(f: RealFunction, { enclosure: [lo, hi] }: Feature): boolean {
  const [a, b] = [steadyValue(f, lo), steadyValue(f, hi)]
  return (a <= 0 && b >= 0) || (a >= 0 && b <= 0)
}

/** What doubles spread over more than their last digits is where the steady value is. */
function nearly(steady: number, least: number, greatest: number): [number, number] {
  const size = Math.max(Math.abs(least), Math.abs(greatest))
  return greatest - least <= 1e-9 * size ? [least, greatest] : [steady, steady]
}

const longestPoint = 44

/** "(√3/3, 2√3/9)" where one of the two is no short decimal and both have a form. */
function pointText(place: Tree, value: Tree | null, decimals: number): string | null {
  const x = exactNumber(place, readableFunctions)
  const y = value && exactNumber(value, readableFunctions)
  if (!x || (value && !y)) return null
  const isShort = (tree: Tree | null) => {
    const fraction = tree && exactRational(tree)
    const text = fraction && plainDecimal(fraction, decimals)
    return !tree || (typeof text === 'string' && text.length <= decimals + 4)
  }
  if (isShort(x) && isShort(y)) return null
  const text = y ? `(${toPlain(x)}, ${toPlain(y)})` : toPlain(x)
  return text.length <= longestPoint ? text : null
}

/** "x = 1", "x = √2 ≈ 1.414", or "x ≈ 1.155" where the number is not known exactly. */
export function placeSaid(
  f: RealFunction,
  enclosed: Enclosed,
  letter: string,
  decimals: number,
): string {
  return placeIs(letter, placeWords(exactPlace(f, enclosed), enclosed, decimals))
}

/** A place in running text: as it is where that is short, with its digits behind a form, else rounded. */
export function placeWords(place: Tree | null, enclosed: Enclosed, decimals: number): string {
  if (!place) return rounded(formatCertain(enclosed.enclosure, decimals).text)
  return treeSaid(place, decimals)
}
