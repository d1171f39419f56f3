import type { RealFunction } from '../evaluate/compile'
import { withValues } from '../evaluate/withValues'
import { curvesIn, namesIn, type Tree } from '../formula/tree'
import type { Parsed } from '../language/parse'
import type { Problem } from '../language/problems'
import { readFormula } from '../calculus/readFormula'
import type { CurveLookup, LineProblem, NumberLookup } from '../statements/contract'
import { withPowerOfTen } from '../vocabulary/values'
import type { Kept } from './kept'

export type Read = <T>(key: string) => T
export type Bound = { f: RealFunction; expanded: Tree } | { problem: LineProblem }

/** Reads texts with the names of the present study. */
export interface Reading {
  parse: (text: string) => Parsed
  /** The same for a formula of two letters. */
  parseOver: (text: string, letters: readonly [string, string]) => Parsed
  /** What a text is worth; places and ends are written as numbers, sliders or sums of such. */
  number: (text: string) => NumberLookup
  /** A tree as a function, with the curves it uses and the present slider values put in. */
  bind: (tree: Tree, path: readonly string[]) => Bound
  /** A tree with the curves it uses put in; null where one of them cannot be. */
  expand: (tree: Tree) => Tree | null
}

/** More digits than this no one has typed. */
const mostTyped = 11
const hasManyDigits = (value: number) =>
  String(value)
    .replace(/e.*$|\D/g, '')
    .replace(/^0+|0+$/g, '').length > mostTyped

export function createReading(read: Read, { once }: Kept): Reading {
  const listed = (key: string) => {
    const names = read<string>(key)
    return names === '' ? [] : names.split(',')
  }
  const parse = (text: string): Parsed =>
    readFormula(text, {
      variable: read<string>('letter'),
      names: listed('names'),
      curves: listed('curveNames'),
    })

  const parseOver = (text: string, [first, second]: readonly [string, string]): Parsed =>
    readFormula(text, {
      variable: first,
      names: [...listed('names').filter((n) => n !== first && n !== second), second],
      curves: listed('curveNames'),
    })

  const number = (text: string): NumberLookup => {
    const result = parse(withPowerOfTen(text))
    if (!result.ok) return { ok: false, problem: asLineProblem(result.problems[0]!) }
    const { tree } = result
    const letter = read<string>('letter')
    if (namesIn(tree).has(letter)) {
      const message = `a place cannot depend on ${letter}`
      return { ok: false, problem: { message, fix: 'use a number or a slider' } }
    }
    const whole = bind(tree, [])
    if ('problem' in whole) return { ok: false, problem: whole.problem }
    const value = whole.f.value(0)
    const { expanded, f } = whole
    const exact = namesIn(expanded).size === 0 ? expanded : null
    return Number.isFinite(value)
      ? {
          ok: true,
          value,
          exact,
          tree: exact ?? withValues(expanded, f.parameters),
          rough: exact === null && Object.values(f.parameters).some(hasManyDigits),
        }
      : { ok: false, problem: { message: `${text} has no value`, fix: 'check its sliders' } }
  }

  const withCurves = (
    tree: Tree,
    path: readonly string[],
  ): { expanded: Tree } | { problem: LineProblem } => {
    const trees: Record<string, Tree> = {}
    for (const used of curvesIn(tree)) {
      if (path.includes(used)) return { problem: circular([...path, used]) }
      const found = read<CurveLookup>(`curve:${used}`)
      if (!found.ok) {
        return { problem: { message: `${used} cannot be used: ${found.problem.message}` } }
      }
      if (!found.curve.formula) {
        return { problem: { message: `${used} has no formula, so it cannot stand in another one` } }
      }
      trees[used] = found.curve.f.tree
    }
    return { expanded: once.expand(tree, trees, read<string>('letter')) }
  }

  const bind = (tree: Tree, path: readonly string[]): Bound => {
    const letter = read<string>('letter')
    const whole = withCurves(tree, path)
    if ('problem' in whole) return whole
    const { expanded } = whole
    const values: Record<string, number> = {}
    for (const used of namesIn(expanded)) {
      if (used !== letter) values[used] = read<number>(`slider:${used}`)
    }
    return { f: once.compile(expanded, letter).withParameters(values), expanded }
  }

  const expand = (tree: Tree): Tree | null => {
    const whole = withCurves(tree, [])
    return 'problem' in whole ? null : whole.expanded
  }

  return { parse, parseOver, number, bind, expand }
}

export function asLineProblem({
  message,
  fix,
  missing,
  from,
  to,
  replacement,
  choices,
}: Problem): LineProblem {
  return {
    message,
    ...(fix ? { fix } : {}),
    ...(missing ? { missing } : {}),
    at: { from, to, ...(replacement ? { replacement } : {}), ...(choices ? { choices } : {}) },
  }
}

export const circular = (path: readonly string[]): LineProblem => ({
  message: `defined by itself: ${path.join(' → ')}`,
  fix: 'let one of them stand on its own',
})
