import { expandCurves } from './curves'
import { compileTree, type CompileOptions, type RealFunction } from '../evaluate/compile'
import type { Tree } from '../formula/tree'

export interface FormulaOptions extends CompileOptions {
  /** Other curves that the tree may use, by name. */
  curves?: Readonly<Record<string, Tree>>
}

/**
 * Makes a formula's tree into a function of its variable (x where none is named). Throws RangeError
 * for a curve that is not given or that is defined by itself; no number makes it throw later.
 */
export function compile(tree: Tree, options: FormulaOptions = {}): RealFunction {
  const variable = options.variable ?? 'x'
  return compileTree(expandCurves(tree, options.curves ?? {}, variable), options)
}
