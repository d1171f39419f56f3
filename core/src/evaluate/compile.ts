import { writtenOut } from '../functions/writtenOut'
import { namesIn, type Tree } from '../formula/tree'
import { compileBlocks, type BlockProgram } from './blocks'
import { type BoxCode, compileBoxes, encloseRange } from './enclosures'
import { withValues } from './withValues'
import { type Jet, joinJets, type Look, toDerivatives, variableJet } from '../arithmetic/jets'
import { compileJets } from './compileJets'
import type { JetCode, Slots } from './slots'
import { compileScalar } from './compileScalar'

/** A function of one real variable, ready to be evaluated. */
export interface RealFunction {
  readonly tree: Tree
  readonly variable: string
  /** f(x); NaN outside the domain. Never throws. */
  value(x: number): number
  /** f at each of xs, into `out` where it is given (at least as long as xs). */
  values(xs: ArrayLike<number>, out?: Float64Array): Float64Array
  /** [f(x), f'(x), …] up to the order: true derivatives, by Taylor arithmetic; NaN where none is. */
  derivatives(x: number, order: number): number[]
  /**
   * [f(x−), f′(x−), …] for side -1 and [f(x+), f′(x+), …] for side 1: what f and its derivatives
   * tend to on one side where pieces, kinks or steps lie at x; elsewhere what they are.
   */
  beside(x: number, side: -1 | 1, order: number): number[]
  /**
   * An interval that surely holds every value f has on the box from lo to hi (either way round);
   * bounds may be infinite, and both are NaN where f has no value there.
   */
  enclose(lo: number, hi: number): [lo: number, hi: number]
  /** Values of the sliders. */
  readonly parameters: Readonly<Record<string, number>>
  /** The same function with other values for its sliders; nothing is compiled again. */
  withParameters(parameters: Readonly<Record<string, number>>): RealFunction
}

export interface CompileOptions {
  variable?: string
  /** Values of the sliders; a name without one evaluates to NaN. */
  parameters?: Readonly<Record<string, number>>
}

/**
 * Compiles a tree without references to other curves to closures (one value, jets) and, on first
 * use, to a tape of block operations (many values). No code is generated from text.
 */
export function compileTree(typed: Tree, options: CompileOptions = {}): RealFunction {
  const tree = writtenOut(typed)
  const variable = options.variable ?? 'x'
  const sliderNames = [...namesIn(tree)].filter((n) => n !== variable)
  const slots: Slots = { variable, of: new Map(sliderNames.map((n, i) => [n, i])) }
  const scalar = compileScalar(tree, slots)
  let blocks: BlockProgram | undefined
  let jets: JetCode | undefined

  const bind = (parameters: Readonly<Record<string, number>>): RealFunction => {
    let boxes: BoxCode | undefined
    const p = Float64Array.from(sliderNames, (n) => parameters[n] ?? NaN)
    return {
      tree,
      variable,
      value: (x) => scalar(x, p),
      values(xs, out = new Float64Array(xs.length)) {
        blocks ??= compileBlocks(tree, variable, slots.of)
        blocks(xs, out, p)
        return out
      },
      derivatives(x, order) {
        jets ??= compileJets(tree, slots)
        return toDerivatives(jetAt(jets, x, order + 1, p))
      },
      beside(x, side, order) {
        jets ??= compileJets(tree, slots)
        return toDerivatives(jetBeside(jets, x, side, order + 1, p))
      },
      enclose(lo, hi) {
        boxes ??= compileBoxes(withValues(tree, parameters), variable)
        const range = encloseRange(boxes, Math.min(lo, hi), Math.max(lo, hi))
        return [range.lo, range.hi]
      },
      parameters,
      withParameters: bind,
    }
  }
  return bind(options.parameters ?? {})
}

/** More coefficients than asked for tell what vanishes at a kink from what stays: (x³)^(1/3). */
const extraAtKinks = 12

/** The jet at a point; where the sides may differ, each on its own and then joined. */
function jetAt(code: JetCode, x: number, length: number, p: Float64Array): Jet {
  const look: Look = { side: 0, splits: false }
  const here = code(variableJet(x, length), p, look)
  if (!look.splits || length === 1 || Number.isNaN(here[0]!)) return here
  const beside = (side: -1 | 1) => jetBeside(code, x, side, length, p)
  return joinJets(beside(-1), beside(1), here[0])
}

const jetBeside = (code: JetCode, x: number, side: -1 | 1, length: number, p: Float64Array): Jet =>
  code(variableJet(x, length + extraAtKinks), p, { side, splits: false }).slice(0, length)
