import {
  type Corner,
  type Evaluation,
  type Extreme,
  extremeText,
  formatNotZero,
  formatPower,
  formatShort,
  type LaneScene,
  type Range,
  type RealFunction,
} from '@yperkine/core'
import { memo } from 'react'
import { type Examined, useStudy, useWorkbench } from '../store'
import { cornerPlace } from './cornerPlace'
import { useRange } from './useRange'

/** How far a lane's curve reaches, in a corner of the lane: it tells what a frame leaves out. */
export const LaneRange = memo(function LaneRange({
  lane,
  corner,
}: {
  lane: Pick<LaneScene, 'id' | 'curve' | 'order' | 'title'>
  corner: Corner | null
}) {
  const { found, stale, progress, stopped, stop } = useRange(lane.curve, lane.order)
  const decimals = useStudy((s) => s.decimals)
  const known = useWorkbench((s) => {
    const one = lane.order === 0 ? s.examined.get(lane.curve) : undefined
    return one?.subject === s.evaluation.curves.get(lane.curve) ? one : undefined
  })
  const proven = known?.examination
  const alone = useStudy((s) => s.lanes.find((l) => l.id === lane.id)?.overlays.length === 0)
  const f = useWorkbench((s) => spanOf(s.evaluation, lane.curve)?.f)
  // Of a curve that goes on to both sides only a stretch is looked over, and that is told.
  const from = useWorkbench((s) => known?.from ?? spanOf(s.evaluation, lane.curve)?.from)
  const to = useWorkbench((s) => known?.to ?? spanOf(s.evaluation, lane.curve)?.to)
  const isOpen = useWorkbench((s) => spanOf(s.evaluation, lane.curve)?.window !== null)
  const stretch =
    isOpen && from !== undefined && to !== undefined
      ? ` on [${formatShort(from, decimals)}, ${formatShort(to, decimals)}]`
      : ''
  // Of a curve that cannot be followed all along, such as an area without bound, nothing is told.
  const broken = useWorkbench((s) => {
    const curve = s.evaluation.curves.get(lane.curve)
    return curve?.ok === true && curve.curve.problems.length > 0
  })
  const reach = broken
    ? null
    : (provenReach(known, f, decimals, stretch) ?? (found && reachText(found, decimals, stretch)))
  if (!reach && progress === null && !stopped) return null
  return (
    <div
      className={`pointer-events-none absolute flex items-center gap-2 text-[calc(13px*var(--type))] text-quiet ${cornerPlace(corner ?? 'top right', lane.order)} ${corner || progress !== null || stopped ? '' : 'sr-only'}`}
    >
      {progress !== null && (
        <>
          <progress
            aria-label={`Looking for the range of ${lane.title}`}
            value={progress}
            max={1}
            className="w-20"
          />
          <button type="button" className="pill pointer-events-auto" onClick={stop}>
            Stop
          </button>
        </>
      )}
      {stopped && <span>stopped</span>}
      {reach && (
        <output
          aria-label={`range of ${lane.title}`}
          aria-live="off"
          aria-busy={stale && !proven}
          className={`px-1 ${stale && !proven ? 'opacity-50' : ''}`}
        >
          {alone ? reach : `${lane.title}: ${reach}`}
        </output>
      )}
    </div>
  )
})

const spanOf = (evaluation: Evaluation, name: string) => {
  const found = evaluation.curves.get(name)
  return found?.ok ? found.curve : undefined
}

/** The least and greatest value where both are proven. */
function provenReach(
  known: Examined | undefined,
  f: RealFunction | undefined,
  decimals: number,
  stretch: string,
): string | null {
  if (!known?.examination.complete) return null
  const { highest, lowest } = known.examination
  const said = (extreme: Extreme | null) => {
    if (!extreme) return null
    const isLong = Math.abs(extreme.value) >= longFrom
    return isLong || !f ? shown(extreme.value, decimals) : extremeText(f, extreme, decimals)
  }
  const text = inWords(said(lowest), said(highest))
  return `${text}${stretch}, proven`
}

/** Found by a search, so it carries ≈ until it is proven; of an end that is not known nothing is said. */
function reachText({ low, high }: Range, decimals: number, stretch: string): string | null {
  const ends = [low, high].map((end) =>
    typeof end === 'string' ? end : { text: shown(end.value, decimals), proven: end.proven },
  )
  const known = ends.flatMap((end) => (typeof end === 'string' ? [] : [end]))
  const isProven = ends.every((end) => end === 'none' || (typeof end !== 'string' && end.proven))
  const [least, most] = ends.map((end) => (typeof end === 'string' ? null : end.text))
  if (!ends.includes('unknown')) {
    const text = inWords(least ?? null, most ?? null)
    return isProven ? `${text}${stretch}, proven` : `≈ ${text}${stretch}`
  }
  if (known.length === 0) return null
  return `≈ ${least === null ? `highest ${most}` : `lowest ${least}`}${stretch}`
}

function inWords(least: string | null, most: string | null): string {
  if (least !== null && most !== null) return `from ${least} to ${most}`
  if (least !== null) return `lowest ${least}, no highest value`
  if (most !== null) return `no lowest value, highest ${most}`
  return 'no lowest and no highest value'
}

/** More digits before the point than anyone reads become a power of ten. */
const longFrom = 1e7
const shown = (value: number, decimals: number) =>
  Math.abs(value) >= longFrom ? formatPower(value, 3) : formatNotZero(value, decimals)
