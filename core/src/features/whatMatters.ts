import type { RealFunction } from '../evaluate/compile'
import type { Steps } from './budget'
import type { Examination } from './examination'
import { examineInSteps } from './examine'

/** A stretch of the axis. */
export type Window = [from: number, to: number]

/** Without features this much of the axis is shown. */
const usualWidth = 10
/** More places than this, or as many on both sides however far one looks, are endlessly many. */
const most = 24
/** Of endlessly many, those nearest 0 are shown: three periods, or this many places. */
const periodsShown = 3
const placesShown = 11
/** Air beside the outermost places, as a share of the stretch that holds them, and beside an end. */
const [air, mostAir, leastAir, airAtEnd] = [0.4, 1.5, 0.15, 0.05]
/** A look is given up after this share of what an examination may do. */
const patience = 0.3
/** 0 is taken in when it lies no further off than this share of the window. */
const nearZero = 0.7
/** How many times wider far places may make the window before they are left out. */
const farOut = 20

/**
 * The stretch of the axis on which there is something to see of f: its zeros, turning points,
 * inflections, kinks and breaks near the middle, with air around them, on round bounds; 0 is taken
 * in where it lies near. Ends of the domain are shown with what lies inside. Without features it is
 * 10 wide, about 0 or from the domain's end; of endlessly many the three periods nearest 0. The
 * places come from `examine`, looked for as far as that is cheap; the window itself is a choice
 * (common practice, no source).
 */
export function whatMatters(f: RealFunction): Window {
  const whole = domainOf(f)
  const near = placesOn(f, -10, 10)
  if (!near || near.length > most) return crowded(f, whole, near)
  for (const reach of [100, 1000, 1e6]) {
    const far = placesOn(f, -reach, reach)
    if (!far) return near.length >= 5 ? endless(f, whole, near) : around(f, near, whole)
    if (isEndless(far, reach, whole)) return endless(f, whole, near.length >= 5 ? near : far)
    if (far.length > 0) return around(f, withoutFarOnes(near, far), whole)
  }
  return around(f, near, whole)
}

/** Every place of a stretch at which something happens, in order, each once; null where it takes long. */
function placesOn(f: RealFunction, from: number, to: number): number[] | null {
  const found = lookedOver(examineInSteps(f, from, to))
  if (!found) return null
  const features = [
    ...found.zeros,
    ...found.turningPoints,
    ...found.inflections,
    ...found.criticalPoints,
    ...found.breaks,
  ]
  const places = features
    .map(({ x }) => x)
    .filter((x) => x > from && x < to)
    .sort((a, b) => a - b)
  return places.filter((x, i) => i === 0 || x - places[i - 1]! > 1e-9 * Math.max(1, Math.abs(x)))
}

/** An examination, or null where it takes long. */
function lookedOver(steps: Steps<Examination>): Examination | null {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    if (step.value > patience) return null
  }
}

/**
 * The window where more happens near 0 than a picture can show: a stretch about 0 so narrow that
 * there are few, or, where they crowd about 0 itself, one that holds the outermost.
 */
function crowded(f: RealFunction, domain: Window, near: readonly number[] | null): Window {
  let places = near
  for (const reach of [1, 0.1, 0.01, 0.001]) {
    const fewer = placesOn(f, -reach, reach)
    if (fewer && fewer.length < 5) break
    if (fewer && places && fewer.length > places.length / 2 && places.length > most) break
    if (fewer && fewer.length <= most) return endless(f, domain, places ?? fewer)
    places = fewer ?? places
  }
  if (near && places) return endless(f, domain, near)
  const outer = [placesOn(f, -10, -0.1), placesOn(f, 0.1, 10)].flatMap((found) => found ?? [])
  if (outer.length === 0) return around(f, [], domain)
  const outermost = outer.sort((a, b) => Math.abs(b) - Math.abs(a)).slice(0, placesShown)
  const [from, to] = [Math.min(...outermost, 0), Math.max(...outermost, 0)]
  const room = air * (to - from)
  return rounded([from - room, to + room], [from, to], to - from, domain)
}

/** Whether there are as many places further out as further in, up to where one looks. */
function isEndless(places: readonly number[], reach: number, [from, to]: Window): boolean {
  if (places.length <= most) return false
  const beyond = (side: -1 | 1) => places.filter((x) => side * x > reach / 2).length
  return (
    (beyond(1) > most / 8 || to < reach / 2) &&
    (beyond(-1) > most / 8 || from > -reach / 2) &&
    beyond(1) + beyond(-1) > most / 8
  )
}

/** Of places far out and near the middle, those that one picture can show together. */
function withoutFarOnes(near: readonly number[], far: readonly number[]): readonly number[] {
  const wide = (places: readonly number[]) => places.at(-1)! - places[0]!
  // Two places may be a root and an inflection that happen to lie together.
  if (near.length < 3) return far
  return wide(far) > farOut * wide(near) || far.length > most ? near : far
}

/** Looks that find where f has values: evenly on several scales. */
const scales = [1, 10, 100, 1000, 1e6]
const looks = 400
const unround = 1.01371923
/** So many looks without a value make an end; fewer may be a gap. */
const looksBeyond = 12

/**
 * The ends of the domain as far as they can be seen; ∞ where there is none. A place is an end when
 * no look beyond it finds a value: the looks fall on no round number, where single places are missing.
 */
function domainOf(f: RealFunction): Window {
  const seen = scales.map((scale) => {
    const reach = scale * unround
    const xs = Float64Array.from({ length: looks + 1 }, (_, i) => reach * ((2 * i) / looks - 1))
    return { xs, defined: Array.from(f.values(xs), (y) => !Number.isNaN(y)) }
  })
  const within = seen.find(({ defined }) => defined.filter(Boolean).length > 1)
  if (!within) return [-Infinity, Infinity]
  const valuesAt = seen.flatMap(({ xs, defined }) => [...xs].filter((_, i) => defined[i]))
  const [least, greatest] = [Math.min(...valuesAt), Math.max(...valuesAt)]
  const all = seen.flatMap(({ xs }) => [...xs])
  const before = all.filter((x) => x < least)
  const behind = all.filter((x) => x > greatest)
  return [
    before.length >= looksBeyond ? boundary(f, Math.max(...before), least) : -Infinity,
    behind.length >= looksBeyond ? boundary(f, Math.min(...behind), greatest) : Infinity,
  ]
}

/**
 * The part of [from, to] on which f has values: the outermost of evenly spaced looks that find one,
 * each end then bisected to the last digit and tidied to the round number it misses by rounding.
 * A function without a value anywhere keeps the whole stretch.
 */
export function cutToDomain(f: RealFunction, from: number, to: number): Window {
  const xs = Float64Array.from({ length: looks + 1 }, (_, i) => from + ((to - from) * i) / looks)
  const defined = Array.from(f.values(xs), (y) => !Number.isNaN(y))
  const first = defined.indexOf(true)
  const last = defined.lastIndexOf(true)
  if (first < 0 || first === last) return [from, to]
  return [
    first === 0 ? from : boundary(f, xs[first - 1]!, xs[first]!),
    last === looks ? to : boundary(f, xs[last + 1]!, xs[last]!),
  ]
}

/**
 * Where f begins to have values between a place without and a place with one: bisected to the last
 * digit and tidied to the round number it misses by rounding.
 */
function boundary(f: RealFunction, without: number, within: number): number {
  let [out, inside] = [without, within]
  for (let i = 0; i < 80; i++) {
    const middle = (out + inside) / 2
    if (Number.isNaN(f.value(middle))) out = middle
    else inside = middle
  }
  const round = Number(inside.toFixed(9))
  return Math.abs(round - inside) < 1e-9 ? round + 0 : inside
}

/** The window around some places, within a domain. */
function around(f: RealFunction, places: readonly number[], [low, high]: Window): Window {
  if (low > -Infinity && high < Infinity) return rounded([low, high], [low, high], 0, [low, high])
  const inside = places.filter((x) => x !== low && x !== high)
  const ends = [low, high].filter(Number.isFinite)
  const all = [...inside, ...ends].sort((a, b) => a - b)
  const [first, last] = [all[0] ?? 0, all.at(-1) ?? 0]
  const span = last - first
  const alone = inside.length === 0 || (inside.length === 1 && ends.length === 0)
  if (alone || (ends.length > 0 && span <= usualWidth / 10 && !turnsOn(f, inside))) {
    return about(f, ends.length > 0 ? first : (inside[0] ?? 0), [low, high])
  }
  const reach = ends.length > 0 ? 3 * span : air * span
  const seen = heightsAt(f, inside)
  const reachAt = (end: number) => (Number.isFinite(f.value(end)) ? reach : Math.max(reach, span))
  const left = Number.isFinite(low) ? low : stretched(f, first, -1, reachAt(first), span, seen)
  const right = Number.isFinite(high) ? high : stretched(f, last, 1, reachAt(last), span, seen)
  const shown = withZero([left, right])
  return rounded(shown, taking(shown, [first, last]), span, [low, high])
}

/** Whether a curve has a level tangent, or a corner, at one of some places. */
const turnsOn = (f: RealFunction, places: readonly number[]) =>
  places.some((x) => Math.abs(f.derivatives(x, 1)[1] ?? NaN) < 1e-6)

/** The usual width about a place, about 0 where that is near, or on from an end of the domain. */
function about(f: RealFunction, place: number, [low, high]: Window): Window {
  const half = characteristic(f, place) ?? usualWidth / 2
  const width = 2 * half
  if (Number.isFinite(low))
    return rounded(withZero([low, low + width]), [low, low], width, [low, high])
  if (Number.isFinite(high)) {
    return rounded(withZero([high - width, high]), [high, high], width, [low, high])
  }
  const middle = Math.abs(place) <= half / 2 ? 0 : place
  if (Math.abs(middle) > half / 2 && crosses(f, middle)) {
    const room = Math.abs(middle) / 5
    const ends: Window = middle > 0 ? [-room, middle + room] : [middle - room, room]
    return rounded(ends, [Math.min(0, middle), Math.max(0, middle)], room)
  }
  const shown = withZero([middle - half, middle + half])
  return rounded(shown, taking(shown, [place, place]), 0)
}

/** Whether a curve with a value at 0 meets the axis at a slant. */
const crosses = (f: RealFunction, place: number) =>
  Number.isFinite(f.value(0)) && Number.isFinite(f.value(place)) && !turnsOn(f, [place])

/** How far it goes on either side of an inflection until a curve has bent, where 5 is far from it. */
function characteristic(f: RealFunction, place: number): number | null {
  const [, slope = NaN, bend = NaN, third = NaN] = f.derivatives(place, 3)
  const length = Math.sqrt(Math.abs(slope / third))
  if (!(Math.abs(bend) * length < 1e-9 * Math.abs(slope))) return null
  return length > 2 && length < 1e6 ? 5 * length : null
}

/** Heights at places, with half as much again above and below, down to the axis where that is near. */
function heightsAt(f: RealFunction, places: readonly number[]): Window {
  const ys = places.map((x) => f.value(x)).filter(Number.isFinite)
  const [least, greatest] = [Math.min(...ys), Math.max(...ys)]
  const range = greatest - least
  const [low, high] = [least - range / 2, greatest + range / 2]
  return [
    least > 0 && least < 4 * range ? 0 : low,
    greatest < 0 && -greatest < 4 * range ? 0 : high,
  ]
}

/** Where a window ends: with air, and with more as long as the curve stays about its features. */
function stretched(
  f: RealFunction,
  end: number,
  side: -1 | 1,
  reach: number,
  span: number,
  [least, greatest]: Window,
): number {
  let far = reach
  while (far < mostAir * span) {
    const next = far + span / 10
    const y = f.value(end + side * next)
    if (!(y >= least && y <= greatest)) break
    far = next
  }
  return end + side * far
}

/** What must lie inside a window: some places, and 0 where the window reaches over it. */
const taking = ([from, to]: Window, [first, last]: Window): Window =>
  from < 0 && to > 0 ? [Math.min(first, 0), Math.max(last, 0)] : [first, last]

/** Takes in 0 where that lies near. */
function withZero([from, to]: Window): Window {
  const width = to - from
  if (from > 0 && from <= nearZero * width) return [-airAtEnd * to, to]
  if (to < 0 && -to <= nearZero * width) return [from, -airAtEnd * from]
  return [from, to]
}

/** Three periods about 0, or the places nearest 0 where nothing repeats itself. */
function endless(f: RealFunction, domain: Window, places: readonly number[]): Window {
  const period = periodIn(f, places)
  const [low, high] = domain
  if (period !== null) {
    const half = (periodsShown * period) / 2
    const middle = Math.max(low + half, Math.min(high - half, 0))
    return rounded([middle - half, middle + half], [middle - half, middle + half], 0, domain)
  }
  const nearest = [...places].sort((a, b) => Math.abs(a) - Math.abs(b)).slice(0, placesShown)
  const [from, to] = [Math.min(...nearest), Math.max(...nearest)]
  const room = (to - from) * airAtEnd
  return rounded([from - room, to + room], [from, to], to - from, domain)
}

/** Shares of a period at which a function is compared with itself, far from any pattern. */
const probes = [0.137, 0.291, 0.418, 0.557, 0.683, 0.829, 0.961]

/** The shortest distance between places after which f repeats its values; null where it does not. */
function periodIn(f: RealFunction, places: readonly number[]): number | null {
  const start = places.findIndex((x) => x >= 0)
  const first = places[Math.max(0, start)]
  if (first === undefined) return null
  for (const place of places.slice(start + 1)) {
    const period = place - first
    const repeats = probes.every((share, i) => {
      // Each probe looks at another of seven periods.
      const at = first + (share + i - 3) * period
      const [before, after] = [f.value(at), f.value(at + period)]
      if (Number.isNaN(before) && Number.isNaN(after)) return true
      return Math.abs(after - before) <= 1e-6 * Math.max(1e-300, Math.abs(before), Math.abs(after))
    })
    if (repeats) return period
  }
  return null
}

/** The least of 1, 2 and 5 times a power of ten that is not below a number. */
export function roundStep(least: number): number {
  const power = 10 ** Math.floor(Math.log10(least))
  const share = least / power
  return (share <= 1 ? 1 : share <= 2 ? 2 : share <= 5 ? 5 : 10) * power
}

/**
 * Round bounds nearest to those of a window, with the places from first to last inside, and with air
 * beside them.
 */
function rounded(
  [from, to]: Window,
  [first, last]: Window,
  span: number,
  [low, high]: Window = [-Infinity, Infinity],
): Window {
  const step = roundStep((to - from) / 12)
  const tidy = (n: number) => Number((n * step).toPrecision(12)) + 0
  const room = leastAir * span
  const lowest = Number.isFinite(low) ? low - airAtEnd * (to - from) : Math.min(first - room, first)
  const highest = Number.isFinite(high)
    ? high + airAtEnd * (to - from)
    : Math.max(last + room, last)
  const slack = 1e-9 * (to - from)
  // Halves go outwards on both sides.
  let a = -Math.round(-from / step)
  let b = Math.round(to / step)
  if (a * step > Math.min(lowest, first) + slack) a = Math.floor((lowest + slack) / step)
  if (b * step < Math.max(highest, last) - slack) b = Math.ceil((highest - slack) / step)
  return a < b ? [tidy(a), tidy(b)] : [from, to]
}
