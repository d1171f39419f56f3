import type { CurveLookup, LaneOf, Mark } from '../statements/contract'
import type { LineLook } from '../vocabulary/members'

/** How far one of many marks may have gone and still be the same, as a share of its curve's span. */
const reach = 0.15

/** What stands before and behind the @ of a name such as zero@-3. */
function placed(name: string): { what: string; at: number } | null {
  const cut = name.lastIndexOf('@')
  return cut < 0 ? null : { what: name.slice(0, cut), at: Number(name.slice(cut + 1)) }
}

/**
 * The name under which the label of each mark of a line is kept. It is its own, unless one was moved
 * or hidden that is not there any more: then it belongs to the nearest of its kind, which has gone
 * on from there, as a zero does while a slider moves. A mark that is there itself keeps its own. A
 * study of the first format knew marks by their position: #3 is the fourth.
 */
export function labelNames(
  look: LineLook | undefined,
  marks: readonly Mark[],
  curveOf: (lane: LaneOf) => CurveLookup | undefined,
): (id: string) => string {
  const kept = new Set([...Object.keys(look?.moved ?? {}), ...(look?.without ?? [])])
  if (kept.size === 0) return (id) => id
  const present = new Set(marks.map((m) => m.id))
  const names = new Map<string, string>()
  for (const name of kept) {
    const position = /^#(\d+)$/.exec(name)
    const mark = position && marks[Number(position[1])]
    if (mark && !kept.has(mark.id)) names.set(mark.id, name)
  }
  const gone = [...kept].filter((name) => !present.has(name))
  const pairs = gone.flatMap((name) => {
    const was = placed(name)
    if (!was) return []
    return marks.flatMap(({ id, lane }) => {
      const now = placed(id)
      if (now?.what !== was.what || kept.has(id) || names.has(id)) return []
      const found = curveOf(lane)
      const span = found?.ok ? found.curve.to - found.curve.from : Infinity
      const far = Math.abs(now.at - was.at)
      return far <= reach * span ? [{ name, id, far }] : []
    })
  })
  const given = new Set<string>()
  for (const { name, id } of pairs.sort((a, b) => a.far - b.far)) {
    if (names.has(id) || given.has(name)) continue
    names.set(id, name)
    given.add(name)
  }
  return (id) => names.get(id) ?? id
}
