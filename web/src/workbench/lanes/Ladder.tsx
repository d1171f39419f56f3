import { derivativeToLatex, isCurveMaker, kindOf, laneTitle, toggleLane } from '@yperkine/core'
import { type DragEvent, memo } from 'react'
import { Maths } from '../../parts/Maths'
import { useStudy, useWorkbenchStore } from '../store'

const orders = [-1, 0, 1, 2, 3]

/** A lane's name as it is typeset; below the curve itself stands its area. */
export const rungLatex = (
  curve: string,
  order: number,
  letter: string,
  notation: 'primes' | 'ratios',
) =>
  order < 0
    ? `\\textstyle\\int ${derivativeToLatex(curve, 0, letter, notation)}`
    : derivativeToLatex(curve, order, letter, notation)

/** What a rung carries while it is dragged to another lane. */
export const rungType = 'application/x-yperkine-rung'

/** The rungs of a curve, its area and its derivatives; each opens or closes its lane. */
export const Ladder = memo(function Ladder({ curve }: { curve: string }) {
  const { apply } = useWorkbenchStore().getState()
  const open = useStudy((s) =>
    s.lanes.flatMap((l) => (l.curve === curve ? [l.order] : [])).join(),
  ).split(',')
  const lowest = useStudy((s) => {
    const line = s.lines.find((l) => isCurveMaker(l) && l.name === curve)
    return (line && kindOf(line).curve?.lowestOrder) ?? -1
  })
  const letter = useStudy((s) => s.variable.letter)
  const notation = useStudy((s) => s.display.notation)
  const drag = (order: number) => (event: DragEvent) => {
    event.dataTransfer.setData(rungType, JSON.stringify({ curve, order }))
    event.dataTransfer.effectAllowed = 'copy'
  }
  return (
    <div
      role="group"
      aria-label={`Lanes of ${curve}`}
      className="flex w-[46px] shrink-0 flex-col overflow-hidden rounded-md border border-rule"
    >
      {orders
        .filter((order) => order >= lowest)
        .map((order) => {
          const shown = open.includes(String(order))
          return (
            <button
              key={order}
              type="button"
              draggable
              onDragStart={drag(order)}
              aria-pressed={shown}
              aria-label={`Show ${laneTitle({ curve, order })}`}
              title="Drag it onto another lane to draw both there"
              className={`h-[26px] border-b border-rule text-[calc(15px*var(--type))] last:border-b-0 focus-visible:-outline-offset-2 pointer-coarse:h-11 ${
                shown
                  ? 'bg-kelp text-page focus-visible:outline-page'
                  : 'bg-page text-quiet hover:text-ink'
              }`}
              onClick={() => apply(toggleLane(curve, order))}
            >
              <Maths latex={rungLatex(curve, order, letter, notation)} />
            </button>
          )
        })}
    </div>
  )
})
