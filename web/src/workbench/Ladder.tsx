import { derivativeToLatex, toggleLane } from '@yperkine/core'
import { memo } from 'react'
import { Maths } from '../parts/Maths'
import { useStudy, useWorkbenchStore } from './store'

const highestOrder = 3

/** The rungs of a curve and its derivatives; each opens or closes its lane. */
export const Ladder = memo(function Ladder({ curve }: { curve: string }) {
  const { apply } = useWorkbenchStore().getState()
  const open = useStudy((s) =>
    s.lanes.flatMap((l) => (l.curve === curve ? [l.order] : [])).join(),
  ).split(',')
  const letter = useStudy((s) => s.variable.letter)
  const notation = useStudy((s) => s.display.notation)
  const orders = Array.from({ length: highestOrder + 1 }, (_, i) => i)
  return (
    <div
      role="group"
      aria-label={`Lanes of ${curve}`}
      className="flex w-[46px] flex-col overflow-hidden rounded-md border border-rule"
    >
      {orders.map((order) => {
        const shown = open.includes(String(order))
        return (
          <button
            key={order}
            type="button"
            aria-pressed={shown}
            aria-label={`Show ${curve}${'′'.repeat(order)}`}
            className={`h-[26px] border-b border-rule text-[calc(15px*var(--type))] last:border-b-0 focus-visible:-outline-offset-2 pointer-coarse:h-11 ${
              shown
                ? 'bg-kelp text-page focus-visible:outline-page'
                : 'bg-page text-quiet hover:text-ink'
            }`}
            onClick={() => apply(toggleLane(curve, order))}
          >
            <Maths latex={derivativeToLatex(curve, order, letter, notation)} />
          </button>
        )
      })}
    </div>
  )
})
