import { placeIs } from '../shared/said'
import { sayNumber } from '../../vocabulary/numbers'
import type { Examination } from '../../features/examination'
import type { LineContext, Mark } from '../contract'
import { beginsAtPlace, type SearchLine } from './line'
import { type Asked, runOf } from './run'

/** A stretch of starts that end in the same place; null where the search does not come to rest. */
export interface Basin {
  from: number
  to: number
  end: number | null
  /** Which of the places it ends in, in their order along the axis; -1 where it ends in none. */
  valley: number
}

/** Ends nearer to each other than this share of the span are one. */
const sameEnd = 1e-4
/** Halvings of the way between two starts that end apart. */
const halvings = 30
/** Borders beyond these are told as the middle between two starts. */
const mostBorders = 24

/** Where the first method that begins at a place comes to from many starts, and where that changes. */
export function basinsOf(
  line: SearchLine,
  asked: Asked,
  context: LineContext,
): { basins: Basin[]; starts: { x: number; valley: number }[] } | null {
  const method = line.methods.find(beginsAtPlace)
  if (line.starts === undefined || method === undefined) return null
  const count = line.starts
  const [from, to] = asked.whole
  const key = `basins ${method} ${line.order} ${line.goal} ${count} ${from} ${to} ${JSON.stringify(asked.numbers)}`
  return context.memo(asked.curve, key, () => {
    const near = sameEnd * (to - from)
    const endOf = (x: number): number | null => {
      if (!Number.isFinite(asked.f.value(x))) return null
      const found = runOf(method, line, asked, uncached(context), x)
      return found.settled ? found.x : null
    }
    const xs = Array.from({ length: count }, (_, i) => from + ((to - from) * i) / (count - 1))
    const ends = xs.map(endOf)
    const places: number[] = []
    for (const end of [...ends].filter((e) => e !== null).sort((a, b) => a - b)) {
      if (places.length === 0 || end - places.at(-1)! > near) places.push(end)
    }
    const valleyOf = (end: number | null) =>
      end === null ? -1 : places.findIndex((p) => Math.abs(p - end) <= 2 * near)
    const starts = xs.map((x, i) => ({ x, valley: valleyOf(ends[i]!) }))
    const basins: Basin[] = []
    let begun = from
    starts.forEach(({ x, valley }, i) => {
      const next = starts[i + 1]
      if (next?.valley === valley) return
      let border = next ? (x + next.x) / 2 : to
      if (next && basins.length < mostBorders) {
        let [a, b] = [x, next.x]
        for (let k = 0; k < halvings; k++) {
          const middle = (a + b) / 2
          if (valleyOf(endOf(middle)) === valley) a = middle
          else b = middle
        }
        border = (a + b) / 2
      }
      basins.push({ from: begun, to: border, end: places[valley] ?? null, valley })
      begun = border
    })
    return { basins, starts }
  })
}

/** What is tried once is not kept: a thousand starts would push out what is. */
const uncached = (context: LineContext): LineContext => ({
  ...context,
  memo: (_owner, _key, make) => make(),
})

/** So many stretches are told. */
const mostTold = 8

/** The stretches as sentences, with whether what they end in is the best there is. */
export function basinsTold(
  basins: readonly Basin[],
  line: SearchLine,
  examination: Examination | null,
  context: LineContext,
): { text: string; at?: number }[] {
  const { letter } = context.variable
  const show = (x: number) => sayNumber(x, Math.max(3, context.decimals))
  const best = line.goal === 'low' ? examination?.lowest : examination?.highest
  const told = basins.slice(0, mostTold).map(({ from, to, end }) => {
    const stretch = `Starts from ${placeIs(letter, show(from))} to ${show(to)}`
    if (end === null) return { text: `${stretch} do not come to rest.` }
    const isBest = best?.at.some(({ x }) => Math.abs(x - end) <= 1e-4 * Math.max(1, Math.abs(x)))
    const rank = best ? (isBest ? `, the ${line.goal}est` : `, not the ${line.goal}est`) : ''
    return {
      text: `${stretch} end at ${placeIs(letter, show(end))}${rank}.`,
      at: end,
    }
  })
  const more = basins.length - told.length
  return more > 0 ? [...told, { text: `${more} more stretches follow.` }] : told
}

/** The starts on the ruler, each with the look of where it ends. */
export const startsMark = (
  starts: readonly { x: number; valley: number }[],
  lane: Mark['lane'],
): Mark => ({ kind: 'starts', id: 'starts', layer: 'ground', lane, starts })
