import { mapChildren, type Tree } from '../formula/tree'
import { severalOrNull } from './index'

/** A tree without the functions that are short for others; the same tree where there are none. */
export function writtenOut(tree: Tree): Tree {
  let changed = false
  const parts = mapChildren(tree, (part) => {
    const written = writtenOut(part)
    changed ||= written !== part
    return written
  })
  const same = changed ? parts : tree
  return same.kind === 'call' ? (severalOrNull(same.name)?.means?.(same.args) ?? same) : same
}
