import type { DrawnFunction } from '../statements/contract'
import type { SignGuess } from '../vocabulary/members'

export const startSignGuess = (from: number, to: number): SignGuess => ({
  from,
  to,
  cuts: [],
  signs: [null],
})

/** The ends of the stretches, in order. */
export const stretchEnds = ({ from, to, cuts }: SignGuess) => [from, ...cuts, to]

/** Cuts the stretch that x lies in; both parts keep what was marked. Outside, nothing changes. */
export function cutAt(guess: SignGuess, x: number): SignGuess {
  const { from, to, cuts, signs } = guess
  if (!(x > from && x < to) || cuts.includes(x)) return guess
  const at = cuts.filter((c) => c < x).length
  return {
    ...guess,
    cuts: [...cuts.slice(0, at), x, ...cuts.slice(at)],
    signs: [...signs.slice(0, at + 1), ...signs.slice(at)],
  }
}

/** Moves a cut, as far as its neighbours allow. */
export function moveCut(guess: SignGuess, at: number, x: number): SignGuess {
  const ends = stretchEnds(guess)
  const room = (guess.to - guess.from) / 1000
  const held = Math.min(ends[at + 2]! - room, Math.max(ends[at]! + room, x))
  return { ...guess, cuts: guess.cuts.map((c, i) => (i === at ? held : c)) }
}

/** Takes a cut away; the stretch on its left takes over. */
export const removeCut = (guess: SignGuess, at: number): SignGuess => ({
  ...guess,
  cuts: guess.cuts.filter((_, i) => i !== at),
  signs: guess.signs.filter((_, i) => i !== at + 1),
})

/** The next mark of a stretch: nothing, +, −, and nothing again. */
export const turnSign = (guess: SignGuess, at: number): SignGuess => ({
  ...guess,
  signs: guess.signs.map((s, i) => (i === at ? (s === null ? 1 : s === 1 ? -1 : null) : s)),
})

export interface SignsCompared {
  /** The share of what was marked that has the right sign, 0 to 1. */
  right: number
  /** For each stretch: all of it right, some of it, none of it; null where nothing was marked. */
  stretches: ('right' | 'partly' | 'wrong' | null)[]
  /** How many times f changes its sign there, and how many of these places were cut near. */
  changes: number
  found: number
  /** The greatest distance of a cut from the change it stands for, or null. */
  furthest: number | null
  /** Changes of sign that no cut stands for. */
  missed: number[]
}

const looks = 2000
/** A cut stands for a change no further off than this share of the stretch. */
const near = 0.05

/**
 * Compares marked signs with those of f. Changes of sign are found by 2001 looks and halving, which
 * is enough for what is marked by hand; null where nothing is marked.
 */
export function compareSigns(
  f: Pick<DrawnFunction, 'value' | 'values'>,
  guess: SignGuess,
): SignsCompared | null {
  const { from, to, signs } = guess
  if (signs.every((s) => s === null)) return null
  const xs = Float64Array.from({ length: looks + 1 }, (_, i) => from + ((to - from) * i) / looks)
  const ys = f.values(xs)
  const ends = stretchEnds(guess)
  const known = Array.from(xs.keys()).filter((i) => Math.abs(ys[i]!) > 0)
  const signAt = (i: number) => Math.sign(ys[i]!)
  const changes = known.slice(1).flatMap((i, k) => {
    const before = known[k]!
    return signAt(before) === signAt(i) ? [] : [changeBetween(f, xs[before]!, xs[i]!)]
  })
  const reach = near * (to - from)
  const distance = changes.map((x) => Math.min(...guess.cuts.map((c) => Math.abs(c - x))))
  const found = distance.filter((d) => d <= reach)
  // By hand a cut is never quite on its zero: what lies between the two is not held against it.
  const forgiven = changes.flatMap((x) =>
    guess.cuts.flatMap((c) =>
      Math.abs(c - x) <= reach ? [[Math.min(c, x), Math.max(c, x)] as const] : [],
    ),
  )
  const counts = signs.map(() => ({ right: 0, all: 0 }))
  for (const i of known) {
    const x = xs[i]!
    if (forgiven.some(([a, b]) => x >= a && x <= b)) continue
    const stretch = Math.max(0, ends.filter((e) => e < x).length - 1)
    if (signs[stretch] === null) continue
    counts[stretch]!.all += 1
    if (signs[stretch] === signAt(i)) counts[stretch]!.right += 1
  }
  const [right, all] = counts.reduce(([r, a], c) => [r + c.right, a + c.all], [0, 0])
  return {
    right: all === 0 ? 0 : right / all,
    stretches: counts.map((c, i) =>
      signs[i] === null || c.all === 0
        ? null
        : c.right === c.all
          ? 'right'
          : c.right === 0
            ? 'wrong'
            : 'partly',
    ),
    changes: changes.length,
    found: found.length,
    furthest: found.length > 0 ? Math.max(...found) : null,
    missed: changes.filter((_, i) => !(distance[i]! <= reach)),
  }
}

/** Where f changes its sign between two places, to a pixel and far below. */
function changeBetween(f: Pick<DrawnFunction, 'value'>, a: number, b: number): number {
  const first = Math.sign(f.value(a))
  let [lo, hi] = [a, b]
  for (let i = 0; i < 40; i++) {
    const m = (lo + hi) / 2
    if (Math.sign(f.value(m)) === first) lo = m
    else hi = m
  }
  return (lo + hi) / 2
}
