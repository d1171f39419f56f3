import {
  type Condition,
  mapChildren,
  negate,
  type Relation,
  sum,
  type Tree,
} from '../../formula/tree'
import { type Const, Constants, NoValues, signOf, Unsure } from '../limits/constants'

const signFits: Record<Relation, (sign: -1 | 0 | 1) => boolean> = {
  '<': (s) => s < 0,
  '<=': (s) => s <= 0,
  '>': (s) => s > 0,
  '>=': (s) => s >= 0,
  '=': (s) => s === 0,
  '!=': (s) => s !== 0,
}

/**
 * The value of a formula at an exact place, as a number with its form: conditions are decided there
 * exactly, not by what lies beside. Null where it has no value, `unsure` where that cannot be told.
 */
export function valueAtPlace(
  tree: Tree,
  variable: string,
  place: Tree,
  constants: Constants,
): Const | null | 'unsure' {
  const holds = (condition: Condition): boolean => {
    if (condition.kind !== 'compare') {
      return condition.kind === 'all' ? condition.of.every(holds) : condition.of.some(holds)
    }
    const { terms, relations } = condition
    return relations.every((relation, i) => {
      const difference = sum(terms[i]!, negate(terms[i + 1]!))
      return signFits[relation](signOf(constants.of(settled(difference))))
    })
  }
  const settled = (part: Tree): Tree => {
    if (part.kind === 'name') return part.name === variable ? place : part
    if (part.kind !== 'pieces') return mapChildren(part, settled)
    const piece = part.pieces.find(({ when }) => !when || holds(when))
    if (!piece) throw new NoValues()
    return settled(piece.body)
  }
  try {
    return constants.of(settled(tree))
  } catch (error) {
    if (error instanceof NoValues) return null
    if (error instanceof Unsure) return 'unsure'
    throw error
  }
}
