import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import {
  curveMakers,
  derivativeToLatex,
  drawnIn,
  isCurveMaker,
  kindOf,
  laneTitle,
  lineColours,
  toggleLane,
} from '@yperkine/core'
import { memo } from 'react'
import { grounds } from '../../parts/inks'
import { Maths } from '../../parts/Maths'
import { useStudy, useWorkbenchStore } from '../store'
import { carryRung } from './rung'

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

/** How the rungs of a ladder stand: below each other, in two columns, or behind a button. */
export type LadderShape = 'tall' | 'wide' | 'folded'

/** Heights of a rung for a mouse and for a finger, and of a folded ladder, in pixels. */
const rungHeights = { fine: 26, coarse: 44 }
const gap = 6

/** The shape in which so many ladders fit into the head of a lane. */
export function ladderShape(count: number, room: number, coarse: boolean): LadderShape {
  const rung = coarse ? rungHeights.coarse : rungHeights.fine
  const each = room / Math.max(1, count) - gap
  if (each >= rung * orders.length) return 'tall'
  return each >= rung * Math.ceil(orders.length / 2) ? 'wide' : 'folded'
}

/** Curves have the first five colours, in the order in which they were written. */
const curveColours = lineColours.slice(0, 5)

/** The rungs of a curve, its area and its derivatives; each is drawn or taken out in one press. */
export const Ladder = memo(function Ladder({
  curve,
  shape,
}: {
  curve: string
  shape: LadderShape
}) {
  const letter = useStudy((s) => s.variable.letter)
  const notation = useStudy((s) => s.display.notation)
  if (shape !== 'folded') return <Rungs curve={curve} wide={shape === 'wide'} />
  return (
    <Popover>
      <PopoverButton
        aria-label={`Lanes of ${curve}`}
        title={`What is drawn of ${curve}`}
        className="button min-h-7 w-[60px] justify-center px-1 py-0 pointer-coarse:min-h-11"
      >
        <Maths latex={derivativeToLatex(curve, 0, letter, notation)} /> …
      </PopoverButton>
      <PopoverPanel anchor="right start" className="popover z-30 p-2">
        <Rungs curve={curve} wide={false} />
      </PopoverPanel>
    </Popover>
  )
})

function Rungs({ curve, wide }: { curve: string; wide: boolean }) {
  const { apply } = useWorkbenchStore().getState()
  const shown = useStudy((s) =>
    s.lanes
      .flatMap((lane) => drawnIn(lane).flatMap((d) => (d.curve === curve ? [d.order] : [])))
      .join(),
  ).split(',')
  const ground = useStudy(
    (s) => grounds[curveColours[curveMakers(s).findIndex((l) => l.name === curve) % 5] ?? 'kelp'],
  )
  const lowest = useStudy((s) => {
    const line = s.lines.find((l) => isCurveMaker(l) && l.name === curve)
    return (line && kindOf(line).curve?.lowestOrder) ?? -1
  })
  const letter = useStudy((s) => s.variable.letter)
  const notation = useStudy((s) => s.display.notation)
  return (
    <div
      role="group"
      aria-label={`Lanes of ${curve}`}
      className={`shrink-0 overflow-hidden rounded-md border border-rule bg-rule ${
        wide ? 'grid w-[76px] grid-cols-2 gap-px' : 'flex w-[46px] flex-col gap-px'
      }`}
    >
      {orders
        .filter((order) => order >= lowest)
        .map((order) => {
          const isShown = shown.includes(String(order))
          return (
            <button
              key={order}
              type="button"
              draggable
              onDragStart={(event) => carryRung(event, { curve, order })}
              aria-pressed={isShown}
              aria-label={`Show ${laneTitle({ curve, order })}`}
              title="Drag it onto a lane to draw it there, or onto the ruler for a lane of its own"
              className={`h-[26px] text-[calc(15px*var(--type))] focus-visible:-outline-offset-2 pointer-coarse:h-11 ${
                isShown
                  ? `${ground} text-page focus-visible:outline-page`
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
}
