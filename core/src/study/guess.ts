import type { DrawnFunction } from '../statements/contract'

/** How a drawn guess compares with the curve it guesses. */
export interface GuessCompared {
  /** The share of the places looked at where both have one sign, 0 to 1. */
  sameSign: number
  /** The share where both rise or both fall. */
  sameWay: number
  /** Stretches where the guess has the other sign. */
  wrongSign: [number, number][]
}

const looks = 400

/** A guess as a function of the places it was drawn over: straight between neighbours. */
function guessAt(points: readonly (readonly [number, number])[]): (x: number) => number {
  const sorted = [...points].sort(([a], [b]) => a - b)
  return (x) => {
    let i = sorted.findIndex(([at]) => at >= x)
    if (i < 0) return NaN
    i = Math.max(1, i)
    const [a, b] = [sorted[i - 1]!, sorted[i]!]
    if (x < a[0]) return NaN
    return b[0] === a[0] ? b[1] : a[1] + ((b[1] - a[1]) * (x - a[0])) / (b[0] - a[0])
  }
}

/** Compares a guess with f over the stretch it was drawn on; null where nothing was drawn. */
export function compareGuess(
  f: Pick<DrawnFunction, 'value'>,
  points: readonly (readonly [number, number])[],
): GuessCompared | null {
  if (points.length < 2) return null
  const xs = points.map(([x]) => x)
  const [from, to] = [Math.min(...xs), Math.max(...xs)]
  if (!(from < to)) return null
  const guess = guessAt(points)
  let [same, ways, seen] = [0, 0, 0]
  const wrongSign: [number, number][] = []
  let before: { f: number; g: number } | null = null
  for (let i = 0; i <= looks; i++) {
    const x = from + ((to - from) * i) / looks
    const [y, g] = [f.value(x), guess(x)]
    if (!Number.isFinite(y) || !Number.isFinite(g)) continue
    seen += 1
    if (Math.sign(y) === Math.sign(g)) same += 1
    else {
      const last = wrongSign.at(-1)
      if (last && x - last[1] <= (1.5 * (to - from)) / looks) last[1] = x
      else wrongSign.push([x, x])
    }
    if (!before || Math.sign(y - before.f) === Math.sign(g - before.g)) ways += 1
    before = { f: y, g }
  }
  return seen === 0 ? null : { sameSign: same / seen, sameWay: ways / seen, wrongSign }
}
