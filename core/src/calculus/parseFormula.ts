import { differentiate } from '../algebra/differentiate'
import { simplify } from '../algebra/simplify'
import { parse, type Parsed, type ParseOptions } from '../language/parse'
import { integralTree } from './integralTree'

/**
 * Reads a formula as people write it by hand (see `parse`), with the derivatives and integrals in it:
 * d/dx (x²) and (x²)′ are read as 2x, ∫_0^x t² dt as x³/3 or as an area up to x.
 */
export const parseFormula = (
  text: string,
  options: Omit<ParseOptions, 'derivative' | 'integral'> = {},
): Parsed =>
  parse(text, {
    ...options,
    derivative: (tree, variable) => simplify(differentiate(tree, variable)),
    integral: integralTree,
  })
