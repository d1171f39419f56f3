import { type Examination, formatNumber, type LaneScene, type RangeFound } from '@yperkine/core'
import { memo } from 'react'
import { useStudy, useWorkbench } from './store'
import { useRange } from './useRange'

/** How far a lane's curve reaches, in a corner of the lane: it tells what a frame leaves out. */
export const LaneRange = memo(function LaneRange({
  lane,
}: {
  lane: Pick<LaneScene, 'curve' | 'order' | 'title'>
}) {
  const { found, stale, progress, stopped, stop } = useRange(lane.curve, lane.order)
  const decimals = useStudy((s) => s.decimals)
  const proven = useWorkbench((s) => {
    const known = lane.order === 0 ? s.examined.get(lane.curve) : undefined
    return known?.subject === s.evaluation.curves.get(lane.curve) ? known?.examination : undefined
  })
  const reach = provenReach(proven, decimals) ?? (found && reachText(found, decimals))
  if (!reach && progress === null && !stopped) return null
  return (
    <div className="pointer-events-none absolute top-1 right-2 flex items-center gap-2 text-[calc(13px*var(--type))] text-quiet">
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
          className={`haloed px-1 ${stale && !proven ? 'opacity-50' : ''}`}
        >
          {reach}
        </output>
      )}
    </div>
  )
})

/** The least and greatest value where both are proven, with the tick that says so in words too. */
function provenReach(known: Examination | undefined, decimals: number): string | null {
  if (!known?.complete || !known.highest || !known.lowest) return null
  const { highest, lowest } = known
  return `✓ ${formatNumber(lowest.value, decimals)} to ${formatNumber(highest.value, decimals)}, proven`
}

/** Found by a search, so it carries ≈ until it is proven. */
function reachText({ low, high }: RangeFound, decimals: number): string | null {
  if (!low || !high) return null
  return `≈ ${formatNumber(low.value, decimals)} to ${formatNumber(high.value, decimals)}`
}
