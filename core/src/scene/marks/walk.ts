import type { Mark } from '../../statements/contract'
import { type Frame, toPixelX, toPixelY } from '../frame'
import type { Ink } from '../items'
import { markerPath } from '../markers'
import { round } from '../sampleCurve'
import type { PlainItem } from './mark'
import type { Points } from './points'

/** Several searches are told apart by the colours of curves, the first one by that of places. */
const inks: readonly Ink[] = ['place', 'curve2', 'curve3', 'curve4', 'curve5']

/** More probes than this are points alone: arcs between them would cover the curve. */
const mostArcs = 160
/** A move shorter than this across needs no arc, and one longer is a leap, in pixels. */
const [stillAcross, highestArc] = [6, 70]

/**
 * A search on its curve: each place it went on to, joined by arcs in their order, and what it refused as
 * small crosses. Of very many probes only those it went on with are shown.
 */
export function walkItems(
  mark: Mark & { kind: 'walk' },
  frame: Frame,
  key: string,
  { markerWidth = 9 }: Points,
): PlainItem[] {
  const ink = inks[mark.index % inks.length]!
  const { probes } = mark
  const values = new Map(probes.map(({ x, value }) => [x, value]))
  const at = (x: number, y: number) => {
    const [px, py] = [toPixelX(frame, x), toPixelY(frame, y)]
    const seen = px >= -frame.width && px <= 2 * frame.width && Math.abs(py) <= 4 * frame.height
    return seen ? { x: px, y: py } : null
  }
  const isMany = probes.length > mostArcs
  let [arcs, accepted, refused] = ['', '', '']
  for (const { x, value, from, accepted: isTaken } of probes) {
    const here = at(x, value)
    if (!here) continue
    if (!isTaken) {
      if (!isMany) refused += markerPath('cross', here.x, here.y, markerWidth / 2 - 0.5)
      continue
    }
    accepted += markerPath('ring', here.x, here.y, markerWidth / 2 - (isMany ? 1.5 : 0))
    const before = from === null ? null : at(from, values.get(from) ?? NaN)
    if (!before || isMany || Math.abs(here.x - before.x) < stillAcross) continue
    const lift = Math.min(highestArc, 0.35 * Math.abs(here.x - before.x))
    const top = Math.min(here.y, before.y) - 2 * lift
    arcs += `M${round(before.x)} ${round(before.y)}Q${round((here.x + before.x) / 2)} ${round(top)} ${round(here.x)} ${round(here.y)}`
  }
  const last = mark.isWhole ? undefined : probes.at(-1)
  const now = last && at(last.x, last.value)
  const items: PlainItem[] = [
    { kind: 'path', key, d: arcs, ink, width: 1.5 },
    { kind: 'path', key: `${key}.refused`, d: refused, ink: 'quiet', width: 1.5 },
    { kind: 'path', key: `${key}.accepted`, d: accepted, ink, width: 1.5, fill: 'page' },
    // Where it has come to, while it is followed.
    {
      ...{ kind: 'path', key: `${key}.now`, ink, width: 2 },
      d: now
        ? markerPath(last.accepted ? 'disc' : 'cross', now.x, now.y, markerWidth / 2 + 2.5)
        : '',
      ...(last?.accepted ? { fill: 'own' as const } : {}),
    },
  ]
  return items.filter((item) => item.kind !== 'path' || item.d !== '')
}
