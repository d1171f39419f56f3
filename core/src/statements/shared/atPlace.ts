import type { CurveResult, LineContext, LineProblem, Proposal, Request } from '../contract'
import { type CurveRef, curveAndPlace, curveText } from './slots'
import type { BreakKind } from '../../features/examination'
import { examine } from '../../features/examine'
import { heldAt } from '../../features/held'
import type { Tree } from '../../formula/tree'
import { exactForm, type ExactForm } from '../../vocabulary/exactForms'
import { formatShort } from '../../vocabulary/numbers'

/** The derivatives of a curve at a place, and where that place is. */
export interface AtPlace {
  curve: CurveResult
  x: number
  /** The place as it was typed, where it hangs on no slider. */
  exact: Tree | null
  /** f, f′, … up to the order asked for. */
  derivatives: number[]
}

/** Looks up a curve at a place, or says what is in the way. */
export function lookAt(
  line: { curve: string; place: string },
  orders: number,
  context: LineContext,
): { ok: true; at: AtPlace } | { ok: false; problem: LineProblem } {
  const found = context.curve(line.curve)
  if (!found.ok) return found
  const place = context.number(line.place)
  if (!place.ok) return place
  const { curve } = found
  const x = place.value
  const { letter } = context.variable
  const show = (value: number) => formatShort(value, Math.max(context.decimals, 3))
  if (x < curve.from || x > curve.to) {
    return {
      ok: false,
      problem: {
        message: `${letter} = ${show(x)} lies outside the span of ${curve.name}, ${show(curve.from)} to ${show(curve.to)}`,
        fix: `move the place, or widen the span of ${curve.name}`,
      },
    }
  }
  const derivatives = curve.f.derivatives(x, orders)
  if (!Number.isFinite(derivatives[0])) {
    if (curve.formula && heldAt(curve.f, x) === 'tooLarge') {
      return { ok: false, problem: tooLarge(`${curve.name}(${show(x)})`) }
    }
    return {
      ok: false,
      problem: {
        message: `${curve.name} has no value at ${letter} = ${show(x)}`,
        fix: 'move the place to where the curve is drawn',
      },
    }
  }
  return { ok: true, at: { curve, x, exact: place.exact, derivatives } }
}

/** A value that is there and that no double holds. */
export const tooLarge = (what: string): LineProblem => ({
  message: `${what} is too large to hold: beyond 1.8·10³⁰⁸`,
  fix: 'move the place to where the values are smaller',
})

/** "f′(800) is not 0: it is too small to hold", for each of the orders of which that is so. */
export function tooSmallNotes(
  { curve, x, derivatives }: AtPlace,
  orders: readonly number[],
  { decimals }: LineContext,
): string[] {
  if (!curve.formula) return []
  return orders.flatMap((order) => {
    if (derivatives[order] !== 0 || heldAt(curve.derivative(order).f, x) !== 'tooSmall') return []
    const what = `${curveText({ curve: curve.name, order })}(${formatShort(x, Math.max(decimals, 3))})`
    return [`${what} is not 0: it is too small to hold, below 5·10⁻³²⁴.`]
  })
}

/** The exact form of a derivative at a typed place, as a part of a readout. */
export function exactAt(
  { curve, exact, derivatives }: AtPlace,
  order: number,
  { variable, decimals }: LineContext,
): { exact?: ExactForm } {
  const value = derivatives[order]!
  if (!exact || !Number.isFinite(value)) return {}
  const { tree } = curve.derivative(order)
  const form = exactForm(tree, variable.letter, exact, value, decimals)
  return form ? { exact: form } : {}
}

/** How far to both sides a place is examined, relative to its size. */
const around = 1e-3

/**
 * What q does at a place at which q′ is missing, by an examination of the curve around it; null
 * where the examination finds nothing there.
 */
export function breakAtPlace({ order }: CurveRef, { curve, x }: AtPlace): BreakKind | null {
  const reach = around * Math.max(1, Math.abs(x))
  const [from, to] = [Math.max(curve.from, x - reach), Math.min(curve.to, x + reach)]
  if (!(from < to)) return null
  const found = examine(curve.derivative(order).f, from, to)
  return found.breaks.find(({ enclosure: [lo, hi] }) => lo <= x && x <= hi)?.kind ?? null
}

/** Why there is no derivative at a place where the curve has a value. */
export function missingDerivative(ref: CurveRef, at: AtPlace, letter: string): LineProblem {
  const lower = { ...ref, order: ref.order - 1 }
  const name = curveText(lower)
  if (at.curve.formula && heldAt(at.curve.derivative(ref.order).f, at.x) === 'tooLarge') {
    return tooLarge(`${curveText(ref)}(${formatShort(at.x, 6)})`)
  }
  return {
    message: `no ${ref.order > 1 ? curveText(ref) : 'slope'} at ${letter} = ${formatShort(at.x, 6)}: ${missingReason(lower, at, name)}`,
    fix: 'move the place a little to either side',
  }
}

/** "q has a kink here, −1 on its left and 1 on its right" */
export function missingReason(ref: CurveRef, at: AtPlace, name: string): string {
  const { curve, x } = at
  const { f } = curve.derivative(ref.order)
  const step = 1e-9 * Math.max(1, Math.abs(x))
  const oneSided =
    x === curve.from || x === curve.to || [x - step, x + step].some((b) => Number.isNaN(f.value(b)))
  if (oneSided) return `${name} ends here`
  switch (breakAtPlace(ref, at)) {
    case 'jump':
      return `${name} jumps here`
    case 'cusp':
      return `${name} has a cusp here, where its slope is unbounded with opposite signs`
    case 'vertical':
      return `${name} is vertical here`
    case 'oscillation':
      return `${name} swings here without end`
    default:
      return kinkWords(ref, at, name)
  }
}

/** The slopes on both sides of a kink, where there are some. */
function kinkWords({ order }: CurveRef, { curve, x }: AtPlace, name: string): string {
  const slope = (side: -1 | 1) => curve.f.beside(x, side, order + 1)[order + 1]
  const [left, right] = [slope(-1), slope(1)]
  const known = [left, right].every(Number.isFinite)
  const sides = known
    ? `, ${formatShort(left!, 6)} on its left and ${formatShort(right!, 6)} on its right`
    : ''
  return `${name} has a kink here${sides}`
}

/** Lines that hang on a place: which curve and which place the words name or leave open. */
export function offersAt<L>(
  rest: string,
  request: Request,
  make: (ref: CurveRef, place: string) => L | null,
): Proposal<L>[] {
  const { ref, place: said } = curveAndPlace(rest, request.variable.letter, request.curves)
  // "from 2 to 5" is no place.
  if (said && /^(?:from|over|on)\s/.test(said)) return []
  const meant = ref ?? request.ref
  const refs = meant ? [meant] : request.curves.map((c) => ({ curve: c.name, order: 0 }))
  const place = said ?? request.place ?? request.sliders[0] ?? null
  return refs.flatMap((one) => {
    const line = make(one, place ?? 'a')
    return line
      ? [{ line, ...(place === null ? { newSliders: [{ name: 'a', place: true }] } : {}) }]
      : []
  })
}
