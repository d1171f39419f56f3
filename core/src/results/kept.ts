import { expandCurves } from '../algebra/curves'
import { compileTree, type RealFunction } from '../evaluate/compile'
import { derivativeWithJoins } from '../features/place/joinSlopes'
import type { Tree } from '../formula/tree'
import type { LineContext, LineResult } from '../statements/contract'
import type { Study } from '../study/schema'
import type { Cell } from './cells'

export type OnFault = (error: unknown, line: string) => void

/** What an evaluator keeps from one working out to the next. */
export interface Kept {
  cells: Map<string, Cell>
  /** How many lines and curves have been worked out. */
  worked: number
  readonly lastSettled: Map<string, LineResult>
  readonly once: Once
  readonly remember: LineContext['memo']
  /** Makes the question whether a line still has time, asked before each of its steps. */
  readonly patience: () => () => boolean
  readonly onFault: OnFault
  /** The last study and what its lines look at. */
  last: { study: Study; context: LineContext } | null
}

/** So much is remembered for one owner, such as a curve; then it begins anew. */
const mostRemembered = 40

/** A memory that lives as long as what it is about. */
export function createMemory(): LineContext['memo'] {
  const memos = new WeakMap<object, Map<string, unknown>>()
  return <T>(owner: object, key: string, make: () => T): T => {
    let known = memos.get(owner)
    if (!known) memos.set(owner, (known = new Map<string, unknown>()))
    if (!known.has(key)) {
      if (known.size >= mostRemembered) known.clear()
      known.set(key, make())
    }
    return known.get(key) as T
  }
}

export type Once = ReturnType<typeof createOnce>

/** What is made once of a tree by one evaluator: compiled, with curves put in, differentiated. */
export function createOnce() {
  const compiled = new WeakMap<Tree, RealFunction>()
  const expansions = new WeakMap<Tree, { trees: Record<string, Tree>; result: Tree }>()
  const derivatives = new WeakMap<Tree, Tree>()
  return {
    compile(tree: Tree, letter: string): RealFunction {
      let f = compiled.get(tree)
      if (!f || f.variable !== letter) {
        f = compileTree(tree, { variable: letter })
        compiled.set(tree, f)
      }
      return f
    },
    expand(tree: Tree, trees: Record<string, Tree>, letter: string): Tree {
      const names = Object.keys(trees)
      if (names.length === 0) return tree
      const known = expansions.get(tree)
      if (known && names.every((n) => known.trees[n] === trees[n])) return known.result
      const result = expandCurves(tree, trees, letter)
      expansions.set(tree, { trees, result })
      return result
    },
    derivative(tree: Tree, letter: string, order: number): Tree {
      let result = tree
      for (let i = 0; i < order; i++) {
        let next = derivatives.get(result)
        if (!next) derivatives.set(result, (next = derivativeWithJoins(result, letter)))
        result = next
      }
      return result
    },
  }
}
