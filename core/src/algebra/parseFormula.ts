import { parse, type Parsed, type ParseOptions } from '../language/parse'
import { differentiate } from './differentiate'
import { simplify } from './simplify'

/**
 * Reads a formula as people write it by hand (see `parse`), derivatives in it as well: d/dx (x²) and
 * (x²)′ are read as 2x.
 */
export const parseFormula = (
  text: string,
  options: Omit<ParseOptions, 'derivative'> = {},
): Parsed =>
  parse(text, {
    ...options,
    derivative: (tree, variable) => simplify(differentiate(tree, variable)),
  })
