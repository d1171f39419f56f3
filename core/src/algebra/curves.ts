import { curvesIn, mapChildren, type Tree } from '../formula/tree'
import { differentiate } from './differentiate'

/** Puts a tree in place of a name everywhere. */
export function substitute(tree: Tree, name: string, by: Tree): Tree {
  const visit = (part: Tree): Tree => {
    if (part.kind === 'name') return part.name === name ? by : part
    return mapChildren(part, visit)
  }
  return visit(tree)
}

/** The curves that lead from a name back to itself, such as ['f', 'g', 'f'], or null. */
export function findCycle(start: string, curves: Readonly<Record<string, Tree>>): string[] | null {
  const walk = (at: string, path: string[]): string[] | null => {
    if (path.includes(at)) return at === start ? [...path, at] : null
    const tree = curves[at]
    if (!tree) return null
    for (const next of curvesIn(tree)) {
      const found = walk(next, [...path, at])
      if (found) return found
    }
    return null
  }
  return walk(start, [])
}

/**
 * Replaces references to other curves by what they stand for: f''(a) becomes the second derivative
 * of f's tree with a in place of the variable. Throws RangeError for a name without a curve and for
 * curves that are defined by themselves; ask findCycle first.
 */
export function expandCurves(
  tree: Tree,
  curves: Readonly<Record<string, Tree>>,
  variable: string,
): Tree {
  if (curvesIn(tree).size === 0) return tree
  const done = new Map<string, Tree>()
  const derivativeOf = (name: string, primes: number, path: readonly string[]): Tree => {
    if (path.includes(name)) {
      throw new RangeError(`defined by itself: ${[...path, name].join(' → ')}`)
    }
    const key = `${name}:${primes}`
    const known = done.get(key)
    if (known) return known
    const source = curves[name]
    if (!source) throw new RangeError(`nothing is called ${name}`)
    const result =
      primes === 0
        ? expand(source, [...path, name])
        : differentiate(derivativeOf(name, primes - 1, path), variable)
    done.set(key, result)
    return result
  }
  const expand = (part: Tree, path: readonly string[]): Tree => {
    if (part.kind !== 'curve') return mapChildren(part, (child) => expand(child, path))
    const at = expand(part.at, path)
    const body = derivativeOf(part.name, part.primes, path)
    return at.kind === 'name' && at.name === variable ? body : substitute(body, variable, at)
  }
  return expand(tree, [])
}
