import type { Relation } from './tree'

/** Whether a comparison of two numbers holds; with NaN none does. */
export const holds = (relation: Relation, a: number, b: number): boolean => {
  switch (relation) {
    case '<':
      return a < b
    case '<=':
      return a <= b
    case '>':
      return a > b
    case '>=':
      return a >= b
    case '=':
      return a === b
    case '!=':
      return a !== b && !Number.isNaN(a) && !Number.isNaN(b)
  }
}
