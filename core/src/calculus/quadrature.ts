/** Many values of a function at once, as RealFunction.values gives them. */
export type ManyValues = (xs: Float64Array) => ArrayLike<number>

/** A stretch with the integral over it and how far that may be off. */
export interface Panel {
  from: number
  to: number
  value: number
  error: number
  /** The integral of |f|, by which rounding is measured. */
  size: number
  /** Least and greatest of the values seen. */
  least: number
  greatest: number
  /** False where the values show no more than that the panel must be cut more than once. */
  resolved: boolean
}

/*
 * Nodes and weights of the 10-point Gauss rule and its 21-point Kronrod extension: R. Piessens,
 * E. de Doncker-Kapenga, C. W. Überhuber, D. K. Kahaner, QUADPACK, Springer 1983, as SciPy 1.17
 * prints them.
 */
const nodes = [
  0.9956571630258081, 0.9739065285171717, 0.9301574913557082, 0.8650633666889845,
  0.7808177265864169, 0.6794095682990244, 0.5627571346686047, 0.4333953941292472,
  0.2943928627014602, 0.14887433898163122, 0,
]
const kronrod = [
  0.011694638867371874, 0.032558162307964725, 0.054755896574351995, 0.07503967481091996,
  0.0931254545836976, 0.10938715880229764, 0.12349197626206584, 0.13470921731147334,
  0.14277593857706009, 0.1477391049013385, 0.1494455540029169,
]
const gauss = [
  0.06667134430868814, 0.1494513491505806, 0.21908636251598204, 0.26926671930999635,
  0.29552422471475287,
]

/** The Legendre coefficients of a panel are looked at in three groups of four degrees each. */
const firstDegree = 4
const groups = 3
const groupSize = 4

/** P of a degree at a place, by its recurrence. */
function legendre(degree: number, x: number): number {
  let [before, now] = [1, x]
  for (let k = 1; k < degree; k++) {
    ;[before, now] = [now, ((2 * k + 1) * x * now - k * before) / (k + 1)]
  }
  return now
}

/** What each node adds to the coefficient of a degree: the rule is exact up to degree 31. */
const projections = Array.from({ length: groups * groupSize }, (_, k) => {
  const degree = firstDegree + k
  return Float64Array.from(
    nodes,
    (x, i) => ((2 * degree + 1) / 2) * kronrod[i]! * legendre(degree, x),
  )
})

/** The largest Legendre coefficient of each group of degrees, by the values at the nodes. */
function coefficients(ys: ArrayLike<number>): [number, number, number] {
  const largest: [number, number, number] = [0, 0, 0]
  for (let k = 0; k < projections.length; k++) {
    const weights = projections[k]!
    // On the left half an odd polynomial has the other sign.
    const turn = k % 2 === 0 ? 1 : -1
    let total = turn > 0 ? weights[10]! * ys[10]! : 0
    for (let i = 0; i < 10; i++) total += weights[i]! * (ys[20 - i]! + turn * ys[i]!)
    const group = Math.floor(k / groupSize)
    largest[group] = Math.max(largest[group]!, Math.abs(total))
  }
  return largest
}

/**
 * One Gauss-Kronrod rule on [from, to]; NaN where f has no value at one of its 21 places. The error
 * is estimated twice, and the smaller estimate counts: by QUADPACK's from the difference of the two
 * rules, and by how fast the Legendre coefficients fall up to degree 15, carried on to degree 32, the
 * first that the rule does not integrate exactly (common practice, no source). The second is left
 * where they fall more slowly from group to group, as they do beside a kink or a root.
 */
export function gaussKronrod(values: ManyValues, from: number, to: number): Panel {
  const middle = (from + to) / 2
  const half = (to - from) / 2
  const xs = new Float64Array(21)
  for (let i = 0; i < 10; i++) {
    xs[i] = middle - half * nodes[i]!
    xs[20 - i] = middle + half * nodes[i]!
  }
  xs[10] = middle
  const ys = values(xs)
  let [k, g, size] = [kronrod[10]! * ys[10]!, 0, kronrod[10]! * Math.abs(ys[10]!)]
  let [least, greatest] = [ys[10]!, ys[10]!]
  for (let i = 0; i < 10; i++) {
    const [a, b] = [ys[i]!, ys[20 - i]!]
    k += kronrod[i]! * (a + b)
    size += kronrod[i]! * (Math.abs(a) + Math.abs(b))
    if (i % 2 === 1) g += gauss[(i - 1) / 2]! * (a + b)
    least = Math.min(least, a, b)
    greatest = Math.max(greatest, a, b)
  }
  const mean = k / 2
  let spread = kronrod[10]! * Math.abs(ys[10]! - mean)
  for (let i = 0; i < 10; i++) {
    spread += kronrod[i]! * (Math.abs(ys[i]! - mean) + Math.abs(ys[20 - i]! - mean))
  }
  const difference = Math.abs(k - g) * Math.abs(half)
  const scale = spread * Math.abs(half)
  // QUADPACK's estimate: the difference of the rules is that of the 10-point one, raised to 1.5.
  const byRules =
    scale > 0 && difference > 0
      ? Math.min(difference, scale * Math.min(1, ((200 * difference) / scale) ** 1.5))
      : difference
  const [first, second, third] = coefficients(ys)
  const fall = second > 0 ? Math.min(1, third / second) : 1
  const isSteady = fall * first <= slowest * second
  const carried = 4 * third * fall ** groupsToCarry * Math.abs(half)
  const byDegrees = isSteady ? Math.max(carried, difference * 1e-6) : difference
  return {
    from,
    to,
    value: k * half,
    error: Math.min(byRules, byDegrees),
    size: size * Math.abs(half),
    least,
    greatest,
    resolved: fall < resolvedFall,
  }
}

/** From degree 12 to degree 32. */
const groupsToCarry = 5
/** A fall that is this much slower than the one before is not that of a smooth function. */
const slowest = 8
/** Coefficients that fall less from group to group show a panel that is far from fine enough. */
const resolvedFall = 0.2

/** Adds with the rounding errors carried along (Neumaier 1974, from memory). */
export function compensatedSum(terms: Iterable<number>): number {
  const all = terms instanceof Float64Array || Array.isArray(terms) ? terms : [...terms]
  let total = 0
  let carried = 0
  for (let i = 0; i < all.length; i++) {
    const term = (all as ArrayLike<number>)[i]!
    const next = total + term
    carried += Math.abs(total) >= Math.abs(term) ? total - next + term : term - next + total
    total = next
  }
  return Number.isFinite(total) ? total + carried : total
}

const mostPanels = 2000
/** Into so many parts goes a panel for which one cut more would not do. */
const partsUnresolved = 4

/** A spike may hide where f may reach this many times beyond the range of the samples. */
const believed = 4

/**
 * Integrates over neighbouring panels, halving the one with the largest error until the errors
 * together are below the tolerance relative to the integral of |f|, or rounding is all that is left.
 * Where `enclose` still answers, what f may do beyond the samples of a panel counts as its error,
 * so that no spike is passed by. No more than `most` panels are made beyond the first ones.
 */
export function integratePanels(
  values: ManyValues,
  start: readonly (readonly [from: number, to: number])[],
  tolerance: number,
  enclose: (from: number, to: number) => readonly [number, number] | null = () => null,
  most = mostPanels,
): { value: number; error: number; size: number } {
  const panelOn = (from: number, to: number): Panel => {
    const panel = gaussKronrod(values, from, to)
    const range = enclose(from, to)
    if (!range) return panel
    const { least, greatest } = panel
    const room =
      believed * (greatest - least) + 1e-9 * Math.max(Math.abs(greatest), Math.abs(least))
    const beyond = Math.max(0, range[1] - greatest - room, least - room - range[0])
    const most = Math.max(Math.abs(greatest), Math.abs(least), 1) * 1e6
    return beyond > 0
      ? { ...panel, error: panel.error + Math.min(beyond, most) * (to - from) }
      : panel
  }
  const panels = start.map(([from, to]) => panelOn(from, to)).sort((a, b) => a.error - b.error)
  const done: Panel[] = []
  const sizeOf = () => compensatedSum([...panels, ...done].map((p) => p.size))
  const errorOf = () => compensatedSum(panels.map((p) => p.error))
  let [size, error] = [sizeOf(), errorOf()]
  let [count, looks] = [panels.length, 0]
  while (error > tolerance * size && count < most) {
    const worst = panels.pop()
    if (!worst) break
    const parts = worst.resolved ? 2 : partsUnresolved
    const step = (worst.to - worst.from) / parts
    // Doubles end here, or rounding is all that this panel has left.
    const least = 4 * Number.EPSILON * worst.size
    if (!(worst.from + step > worst.from && worst.to - step < worst.to) || worst.error <= least) {
      done.push(worst)
      error -= worst.error
      continue
    }
    size -= worst.size
    error -= worst.error
    for (let i = 0; i < parts; i++) {
      const to = i === parts - 1 ? worst.to : worst.from + (i + 1) * step
      const part = panelOn(worst.from + i * step, to)
      insert(panels, part)
      size += part.size
      error += part.error
    }
    count += parts - 1
    looks += 1
    // What has been added and taken away leaves its rounding behind.
    if (looks % 64 === 0 || error <= tolerance * size) [size, error] = [sizeOf(), errorOf()]
  }
  const all = [...panels, ...done]
  size = sizeOf()
  return {
    value: compensatedSum(all.map((p) => p.value)),
    error: compensatedSum(all.map((p) => p.error)) + 50 * Number.EPSILON * size,
    size,
  }
}

/** Puts a panel into a list sorted by error. */
function insert(panels: Panel[], panel: Panel) {
  let [lo, hi] = [0, panels.length]
  while (lo < hi) {
    const m = (lo + hi) >> 1
    if (panels[m]!.error < panel.error) lo = m + 1
    else hi = m
  }
  panels.splice(lo, 0, panel)
}

/** The finest step is 2^-9 of the first. */
const finestLevel = 9
const firstStep = 0.5
/** Terms this small beside the sum, three in a row, end a tail. */
const negligible = 1e-18

interface Substitution {
  /** Where the term stands, and what it weighs; null where doubles end. */
  (t: number): { at: number; weight: number } | null
}

/** u from 0 to `length`; the distance to 0 keeps all its digits. */
const fromZero =
  (length: number): Substitution =>
  (t) => {
    const s = Math.PI * Math.sinh(t)
    const grown = Math.exp(-s)
    if (!Number.isFinite(grown)) return null
    const share = 1 / (1 + grown)
    const at = length * share
    if (at === 0) return null
    return { at, weight: length * Math.PI * Math.cosh(t) * share * (grown * share) }
  }

/** v from 0 to infinity. */
const toInfinity: Substitution = (t) => {
  const at = Math.exp((Math.PI / 2) * Math.sinh(t))
  if (at === 0 || !Number.isFinite(at)) return null
  return { at, weight: (Math.PI / 2) * Math.cosh(t) * at }
}

/**
 * Double exponential quadrature (H. Takahasi, M. Mori, Publ. RIMS 9, 1974, from memory): over
 * (0, length) with a singular end at 0, or over (0, ∞) where length is Infinity. The error told is
 * the difference of the last two levels; as the error about squares from one to the next, it is far
 * above the true one. Values that are not finite end a tail that has become negligible and make the
 * result NaN elsewhere.
 */
export function doubleExponential(
  g: (u: number) => number,
  length: number,
): { value: number; error: number } {
  const place = length === Infinity ? toInfinity : fromZero(length)
  let [sum, carried, size] = [0, 0, 0]
  let broken = false
  const add = (t: number): 'more' | 'small' | 'end' => {
    const term = place(t)
    if (!term) return 'end'
    const y = g(term.at)
    const part = y * term.weight
    if (!Number.isFinite(part)) {
      // Where the weight has all but vanished a value beyond doubles is no matter.
      if (term.weight > 1e-30 && !(size > 0 && Math.abs(lastPart) <= 1e-12 * size)) broken = true
      return 'end'
    }
    lastPart = part
    const next = sum + part
    carried += Math.abs(sum) >= Math.abs(part) ? sum - next + part : part - next + sum
    sum = next
    size += Math.abs(part)
    return Math.abs(part) <= negligible * size ? 'small' : 'more'
  }
  let lastPart = 0
  const walk = (start: number, step: number) => {
    let small = 0
    for (let t = start; Math.abs(t) < 8; t += step) {
      const said = add(t)
      if (said === 'end') return
      small = said === 'small' ? small + 1 : 0
      if (small >= 3) return
    }
  }
  add(0)
  walk(firstStep, firstStep)
  walk(-firstStep, -firstStep)
  let before = (sum + carried) * firstStep
  let error = Infinity
  for (let level = 1; level <= finestLevel; level++) {
    const step = firstStep / 2 ** level
    walk(step, 2 * step)
    walk(-step, -2 * step)
    const now = (sum + carried) * step
    const last = error
    error = Math.abs(now - before)
    before = now
    const rounding = level >= 4 && error > last / 8 && error < 1e-9 * size * step
    if ((level >= 3 && error <= 1e-15 * size * step) || rounding) break
  }
  if (broken) return { value: NaN, error: Infinity }
  return { value: before, error: error + 50 * Number.EPSILON * Math.abs(before) }
}
