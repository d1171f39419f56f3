import { differentiate } from '../algebra/differentiate'
import { substitute } from '../algebra/curves'
import * as I from '../arithmetic/intervals'
import { type BoxNotes, type Interval } from '../arithmetic/intervals'
import { type BlockProgram, compileBlocks } from '../evaluate/blocks'
import { compileTree, type RealFunction } from '../evaluate/compile'
import { compileScalar } from '../evaluate/compileScalar'
import { type BoxCode, compileBoxes } from '../evaluate/enclosures'
import { withValues } from '../evaluate/withValues'
import { namesIn, type Tree } from '../formula/tree'
import { writtenOut } from '../functions/writtenOut'

/** A rectangle of the ground plane. */
export interface Rectangle {
  readonly x: Interval
  readonly y: Interval
}

/** A function of two real variables, ready to be evaluated: the height z over each (x, y). */
export interface RealSurface {
  readonly tree: Tree
  /** The two variables, the first one first. */
  readonly letters: readonly [string, string]
  /** Values of the sliders. */
  readonly parameters: Readonly<Record<string, number>>
  /** f(x, y); NaN outside the domain. Never throws. */
  value(x: number, y: number): number
  /** f at each of xs with one y, into `out`, which is at least as long. */
  row(xs: Float64Array, y: number, out: Float64Array): void
  /**
   * An interval that surely holds every value that f has on a rectangle, by the plain evaluation and
   * the mean-value form; what came up on it is noted: no value anywhere, on parts, kinks, jumps.
   */
  enclose(box: Rectangle, notes?: BoxNotes): Interval
  /**
   * The partial derivative, so often by the first and so often by the second variable: a formula and
   * its function. It has values only where f has.
   */
  partial(first: number, second: number): RealSurface
  /** The section with the second variable held at a formula without variables, as a function of the first; and the other way round. */
  section(held: 0 | 1, at: Tree, letter: string): RealFunction
}

/**
 * A formula of two variables as a surface. A name that is neither a variable nor a slider with a value
 * gives NaN.
 */
export function compileSurface(
  tree: Tree,
  letters: readonly [string, string],
  parameters: Readonly<Record<string, number>> = {},
): RealSurface {
  return surfaceOf(withValues(tree, withoutLetters(parameters, letters)), letters, parameters, null)
}

const withoutLetters = (values: Readonly<Record<string, number>>, letters: readonly string[]) =>
  Object.fromEntries(Object.entries(values).filter(([name]) => !letters.includes(name)))

/** `whole` is the surface of which this is a partial derivative. */
function surfaceOf(
  tree: Tree,
  letters: readonly [string, string],
  parameters: Readonly<Record<string, number>>,
  whole: RealSurface | null,
): RealSurface {
  const [first, second] = letters
  const plain = writtenOut(tree)
  // Names that are left have no value.
  const names = [second, ...[...namesIn(plain)].filter((n) => !letters.includes(n))]
  const of = new Map(names.map((n, i) => [n, i]))
  const p = new Float64Array(names.length).fill(NaN)
  const scalar = compileScalar(plain, { variable: first, of })
  let blocks: BlockProgram | undefined
  let boxes: ((box: Rectangle, notes: BoxNotes) => Interval) | undefined
  const partials = new Map<string, RealSurface>()

  const surface: RealSurface = {
    tree,
    letters,
    parameters,
    value(x, y) {
      if (whole && Number.isNaN(whole.value(x, y))) return NaN
      p[0] = y
      return scalar(x, p)
    },
    row(xs, y, out) {
      blocks ??= compileBlocks(plain, first, of)
      p[0] = y
      blocks(xs, out, p)
    },
    enclose(box, notes = I.noNotes()) {
      boxes ??= boxesOf(plain, letters)
      const own = I.noNotes()
      let range = boxes(box, own)
      Object.assign(notes, merged(notes, own))
      if (own.empty || own.partial || own.jumps || own.kinks || isPoint(box)) return range
      const [mx, my] = [I.middle(box.x), I.middle(box.y)]
      const [dx, dy] = [surface.partial(1, 0), surface.partial(0, 1)]
      const rest = I.noNotes()
      const [sx, sy] = [dx, dy].map((d) => plainRange(d, box, rest)) as [Interval, Interval]
      if (rest.partial || rest.empty || rest.jumps) return range
      const middle = boxes({ x: I.point(mx), y: I.point(my) }, I.noNotes())
      const run = (side: Interval, m: number) => I.subtract(side, I.point(m))
      const form = I.add(
        middle,
        I.add(I.multiply(sx, run(box.x, mx)), I.multiply(sy, run(box.y, my))),
      )
      range = I.meet(range, form)
      return range
    },
    partial(byFirst, bySecond) {
      if (byFirst === 0 && bySecond === 0) return surface
      const key = `${byFirst} ${bySecond}`
      let known = partials.get(key)
      if (!known) {
        const [letter, before] =
          byFirst > 0
            ? [first, surface.partial(byFirst - 1, bySecond)]
            : [second, surface.partial(0, bySecond - 1)]
        const derived = differentiate(before.tree, letter)
        known = surfaceOf(derived, letters, parameters, whole ?? surface)
        partials.set(key, known)
      }
      return known
    },
    section(held, at, letter) {
      // The held variable first: its place holds no variable that would be taken for the other one.
      const cut = substitute(tree, letters[held], at)
      const free = letters[held === 0 ? 1 : 0]
      const named = substitute(cut, free, { kind: 'name', name: letter })
      return compileTree(named, { variable: letter, parameters })
    },
  }
  plainRanges.set(surface, (box, notes) => (boxes ??= boxesOf(plain, letters))(box, notes))
  return surface
}

/** The evaluation on rectangles without the mean-value form, which asks for it of the derivatives. */
const plainRanges = new WeakMap<RealSurface, (box: Rectangle, notes: BoxNotes) => Interval>()
/** The plain evaluation of a surface on a rectangle: wider than `enclose` and cheaper. */
export const plainRange = (surface: RealSurface, box: Rectangle, notes: BoxNotes): Interval =>
  plainRanges.get(surface)!(box, notes)

const isPoint = ({ x, y }: Rectangle) => x.lo === x.hi && y.lo === y.hi

const merged = (a: BoxNotes, b: BoxNotes): BoxNotes => ({
  empty: a.empty || b.empty,
  partial: a.partial || b.partial,
  jumps: a.jumps || b.jumps,
  kinks: a.kinks || b.kinks,
})

function boxesOf(tree: Tree, [first, second]: readonly [string, string]) {
  const other = { box: I.zeroInterval }
  const code: BoxCode = compileBoxes(tree, first, new Map([[second, other]]))
  return (box: Rectangle, notes: BoxNotes): Interval => {
    other.box = box.y
    return code(box.x, 1, notes)[0]!
  }
}
