import type { RealFunction } from '../evaluate/compile'
import { divergent, growthAtZero, type Part, undecided } from './endGrowth'
import { compensatedSum, doubleExponential, integratePanels, type ManyValues } from './quadrature'

/** Half waves that are looked at before their row is summed. */
const halfWaves = 96
/** Waves that fall with a smaller power of x than this are taken for waves that do not fall. */
const slowestFall = 0.02
/** Places looked at for a change of sign, evenly and then ever wider. */
const looks = 4000

/**
 * The integral of f from a place to infinity. A tail of one sign goes by double exponential
 * quadrature, unless it falls too slowly for an area; one that oscillates as the alternating row of
 * its half waves, whose limit the method of H. Cohen, F. Rodriguez Villegas and D. Zagier
 * (Experimental Mathematics 9, 2000, from memory) finds; half waves that do not get smaller have no
 * limit. Where doubles are too coarse to tell, the value is NaN and nothing is claimed.
 */
export function integrateTail(
  f: Pick<RealFunction, 'value'>,
  values: ManyValues,
  from: number,
  count: () => void,
): Part {
  const g = (x: number) => {
    count()
    return f.value(x)
  }
  const first = signChanges(f, from)
  if (first) {
    // So far out the places themselves are too coarse to tell one wave from the next.
    const coarse = (Number.EPSILON * Math.abs(from)) / first.spacing > 1e-9
    return coarse ? undecided : alternatingTail(g, values, from, first)
  }
  // In u = 1/x the tail is a stretch beside 0.
  const growth = growthAtZero((u) => f.value(1 / u) / u / u, 1 / Math.max(1, Math.abs(from)), true)
  if (growth.diverges) return divergent(growth.sign)
  const found = doubleExponential((v) => (from + v > 1 / growth.least ? 0 : g(from + v)), Infinity)
  return {
    value: found.value + growth.rest,
    error: found.error + growth.unsure * Math.abs(growth.rest),
    diverges: false,
  }
}

/** The first change of sign and the spacing of changes, where f keeps changing its sign. */
function signChanges(f: Pick<RealFunction, 'value'>, from: number) {
  const changes: number[] = []
  let spacing = 0.02
  let before = Math.sign(f.value(from))
  let x = from
  for (let i = 0; i < looks && changes.length < 12; i++) {
    x += spacing
    const sign = Math.sign(f.value(x))
    if (sign !== 0 && before !== 0 && sign === -before) changes.push(x)
    if (sign !== 0) before = sign
    // Waves that are not seen at one width may be at a wider one.
    if (i % 500 === 499 && changes.length < 2) spacing *= 3
  }
  if (changes.length < 8) return null
  const gaps = changes.slice(1).map((c, i) => c - changes[i]!)
  return { at: changes[0]!, spacing: Math.min(...gaps) }
}

function alternatingTail(
  g: (x: number) => number,
  values: ManyValues,
  from: number,
  first: { at: number; spacing: number },
): Part {
  const over = (a: number, b: number) => integratePanels(values, [[a, b]], 1e-14)
  const zero = zeroBetween(g, first.at - first.spacing / 2, first.at)
  const start = over(from, zero)
  const waves: number[] = []
  const ends: number[] = []
  let error = start.error
  let last = zero
  let gap = first.spacing
  for (let k = 0; k < halfWaves; k++) {
    const next = nextZero(g, last, gap)
    if (next === null) break
    const wave = over(last, next)
    waves.push(wave.value)
    ends.push(next)
    error += wave.error
    gap = next - last
    last = next
  }
  if (waves.length < 24) return undecided
  const sizes = waves.map(Math.abs)
  const middle = Math.floor(waves.length / 2)
  const [early, late] = [sizes[middle]!, sizes.at(-1)!]
  if (!(late < 0.97 * early)) {
    // Far out even waves that die away look alike: the power of x with which they fall decides.
    const spread = Math.log(last / ends[middle]!)
    const power = Math.log(late / early) / spread
    const noise = (8 * Number.EPSILON * Math.abs(last)) / gap / spread
    if (!(noise < slowestFall / 2)) return undecided
    if (!(power < -slowestFall)) return divergent(0)
  }
  // The first waves are added as they are: the method wants a row that falls evenly.
  const plain = Math.min(24, waves.length - 20)
  const head = compensatedSum(waves.slice(0, plain))
  const rest = waves.slice(plain)
  const [all, fewer] = [alternatingSum(rest), alternatingSum(rest.slice(0, -6))]
  return {
    value: start.value + head + all,
    error: error + 2 * Math.abs(all - fewer) + 1e-15 * Math.max(...sizes),
    diverges: false,
  }
}

/** The limit of an alternating row from its first terms. */
function alternatingSum(terms: readonly number[]): number {
  const n = Math.min(terms.length, 40)
  const grown = (3 + Math.sqrt(8)) ** n
  const d = (grown + 1 / grown) / 2
  let [b, c, s] = [-1, -d, 0]
  for (let k = 0; k < n; k++) {
    c = b - c
    // The method's terms have their signs taken off: term k is (-1)^k a_k.
    s += c * terms[k]! * (k % 2 === 0 ? 1 : -1)
    b *= ((k + n) * (k - n)) / ((k + 0.5) * (k + 1))
  }
  return s / d
}

function nextZero(g: (x: number) => number, from: number, gap: number): number | null {
  const step = gap / 8
  let x = from + step
  let before = Math.sign(g(x))
  for (let i = 0; i < 200; i++) {
    const next = x + step
    const sign = Math.sign(g(next))
    if (sign !== 0 && before !== 0 && sign !== before) return zeroBetween(g, x, next)
    if (sign !== 0) before = sign
    x = next
  }
  return null
}

function zeroBetween(g: (x: number) => number, from: number, to: number): number {
  let [lo, hi] = [from, to]
  const low = Math.sign(g(lo))
  for (let i = 0; i < 60; i++) {
    const m = (lo + hi) / 2
    if (m === lo || m === hi) break
    if (Math.sign(g(m)) === low) lo = m
    else hi = m
  }
  return (lo + hi) / 2
}
