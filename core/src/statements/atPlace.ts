import type { CurveResult, LineContext, LineProblem, Proposal, Request } from './kind'
import { type CurveRef, curveAndPlace, curveText } from './slots'
import type { Tree } from '../language/tree'
import { exactForm, type ExactForm } from '../study/exactForms'
import { formatShort } from '../study/numbers'

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

/** Why there is no derivative at a place where the curve has a value. */
export function missingDerivative(ref: CurveRef, at: AtPlace, letter: string): LineProblem {
  const { x, curve } = at
  const step = 1e-6 * Math.max(1, Math.abs(x))
  const [left, right] = [curve.f.value(x - step), curve.f.value(x + step)]
  const where = `at ${letter} = ${formatShort(x, 6)}`
  const end = x === curve.from || x === curve.to || Number.isNaN(left) || Number.isNaN(right)
  const value = at.derivatives[0]!
  const jump = Math.max(Math.abs(left - value), Math.abs(right - value))
  // A kink moves with the step; a jump does not get smaller when the step does.
  const nearer = Math.max(
    Math.abs(curve.f.value(x - step / 1000) - value),
    Math.abs(curve.f.value(x + step / 1000) - value),
  )
  const slopes = [(value - left) / step, (right - value) / step]
  const steep = slopes.every((s) => Math.abs(s) > 100)
  const reason = end
    ? `${curve.name} ends here`
    : nearer > jump / 2 && jump > 0
      ? `${curve.name} jumps here`
      : steep
        ? `${curve.name} is vertical here`
        : kinkWords(ref, at)
  return {
    message: `no ${ref.order > 1 ? curveText(ref) : 'slope'} ${where}: ${reason}`,
    fix: 'move the place a little to either side',
  }
}

/** The slopes on both sides of a kink, where there are some. */
function kinkWords({ order }: CurveRef, { curve, x }: AtPlace): string {
  const [left, right] = [curve.f.beside(x, -1, order)[order], curve.f.beside(x, 1, order)[order]]
  const known = [left, right].every(Number.isFinite)
  const sides = known
    ? `, ${formatShort(left!, 6)} on its left and ${formatShort(right!, 6)} on its right`
    : ''
  return `${curve.name} has a kink here${sides}`
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
