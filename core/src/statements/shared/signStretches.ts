import type { Break } from '../../features/examination'
import { signInside } from '../../features/sign'
import type { SpanFacts } from './spanFacts'

export type Stretch = readonly [from: number, to: number]

/** Whether two places are one but for rounding. */
export const near = (a: number, b: number) =>
  Math.abs(a - b) <= 1e-9 * Math.max(1, Math.abs(a), Math.abs(b))

/** At a kink, a cusp or a vertical tangent a function is continuous: its sign cannot jump there. */
export const mayChangeSign = ({ kind }: Break) =>
  kind !== 'kink' && kind !== 'cusp' && kind !== 'vertical'

/**
 * Maximal closed stretches on which a function keeps one sign but for isolated zeros; what could not
 * be settled belongs to none.
 */
export function signStretches({ f, from, to, signChanges }: SpanFacts, sign: 1 | -1): Stretch[] {
  const { zeros, openSigns } = signChanges!
  const breaks = signChanges!.breaks.filter(mayChangeSign)
  const cuts = [from, ...zeros.map((z) => z.x), ...breaks.map((b) => b.x), ...openSigns.flat(), to]
    .filter((x) => x >= from && x <= to)
    .sort((a, b) => a - b)
  const stretches: [number, number][] = []
  for (let i = 1; i < cuts.length; i++) {
    const [a, b] = [cuts[i - 1]!, cuts[i]!]
    if (near(a, b) || openSigns.some(([lo, hi]) => lo <= a && b <= hi)) continue
    // Between two cuts f is continuous and not 0, so one place inside tells its sign.
    if (signInside(f, a, b) !== sign) continue
    const last = stretches.at(-1)
    const touching = last && near(last[1], a) && !breaks.some((x) => near(x.x, a))
    if (touching) last[1] = b
    else stretches.push([a, b])
  }
  return stretches
}
