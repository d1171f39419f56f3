/** What a part of the integral came to. */
export interface Part {
  value: number
  error: number
  diverges: boolean
}

export const divergent = (sign: number): Part => ({
  value: sign === 0 ? NaN : sign * Infinity,
  error: Infinity,
  diverges: true,
})

/** Neither a value nor a proof that there is none. */
export const undecided: Part = { value: NaN, error: Infinity, diverges: false }

/** How a function grows beside 0. */
interface Growth {
  diverges: boolean
  oscillates: boolean
  sign: number
  /** Nearer to 0 than this its values are not to be trusted… */
  least: number
  /** …and this is what lies there by the power it follows, unsure by this share of it. */
  rest: number
  unsure: number
}

/** Powers this close to -1 are taken for 1/u with a power of a logarithm. */
const nearlyMinusOne = 0.03

/**
 * Whether the area of g beside 0 is finite: g is followed down to 1e-250 where its distance from 0
 * is exact, to 1e-10 elsewhere. A power u^α has a finite area for α > -1; with u^(-1)·(ln 1/u)^(-β)
 * for β > 1.
 */
export function growthAtZero(g: (u: number) => number, length: number, exact: boolean): Growth {
  const scale = Math.min(1, length)
  const at = (k: number) => g(scale * 10 ** -k)
  const alphaAt = (k: number) => {
    const [near, far] = [Math.abs(at(k + 1)), Math.abs(at(k))]
    return far > 0 && near > 0 ? Math.log10(far / near) : Infinity
  }
  const settled: Growth = {
    diverges: false,
    oscillates: false,
    sign: 0,
    least: 0,
    rest: 0,
    unsure: 0,
  }
  const signs = new Set<number>()
  for (let i = 0; i < 24; i++) signs.add(Math.sign(at(3 + i * 0.271)))
  signs.delete(0)
  signs.delete(NaN)
  if (signs.size > 1) return { ...settled, oscillates: true }
  const sign = [...signs][0] ?? 0
  const runsAway = [3, 6, 9].some((k) => Math.abs(at(k)) === Infinity)
  if (runsAway) return { ...settled, diverges: true, sign }
  // As deep as values are there and follow on from those further out.
  const moderate = alphaAt(6)
  // A rounded end leaves one and the same value behind, however near one looks.
  const stuck = !exact && at(40) === at(25)
  const k =
    (stuck ? [] : depths).find(
      (d) =>
        Number.isFinite(at(d)) &&
        Number.isFinite(at(d + 1)) &&
        (alphaAt(d) === moderate ||
          Math.abs(alphaAt(d) - moderate) < 0.3 ||
          (exact && at(d) === 0)),
    ) ?? shallow
  const alpha = alphaAt(k)
  if (alpha === Infinity) return settled
  const trusted = k === depths[0]
  const u = scale * 10 ** -k
  // A power keeps its exponent; a logarithm beside 1/u shows as one that closes in on -1.
  const middle = alphaAt(Math.floor(k / 4))
  const isPower = Math.abs(alpha - middle) < 0.2 * Math.abs(alpha + 1) && k > shallow
  if (Math.abs(alpha + 1) < nearlyMinusOne && !isPower) {
    const logs = (k + 0.5) * Math.LN10
    const beta = (alpha + 1) * logs
    if (beta <= 1.05) return { ...settled, diverges: true, sign }
    return { ...settled, least: u, rest: (at(k) * u * logs) / (beta - 1), unsure: 0.5 }
  }
  if (alpha <= -1 + (k > shallow ? 0 : 1e-4)) return { ...settled, diverges: true, sign }
  // What lies nearer to 0 than the values reach is little unless the power is close to -1.
  if (trusted && alpha > -0.9) return settled
  const least = trusted || k > shallow ? u : scale * 1e-13
  const rest = (g(least) * least) / (1 + (k > shallow ? alpha : moderate))
  return { ...settled, least, rest, unsure: k > shallow ? 1e-6 : 0.5 }
}

/** Tens of decimal places down to 0 at which growth is looked at, deepest first. */
const depths = [240, 150, 100, 60, 40, 25]
const shallow = 8
