import { changeLane, formatShort, type Inset } from '@yperkine/core'
import { X } from 'lucide-react'
import { useRef } from 'react'
import { createPainter } from './paint'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { useLanePainting } from '../drawing/usePainting'

/** A stretch of a lane once more, at its own scale, so that both scales are seen at once. */
export function LaneInset({ id, title }: { id: string; title: string }) {
  const inset = useWorkbench((s) => s.scene.lanes.find((l) => l.id === id)?.inset ?? null)
  return inset && <Drawn id={id} title={title} inset={inset} />
}

function Drawn({ id, title, inset }: { id: string; title: string; inset: Inset }) {
  const { apply } = useWorkbenchStore().getState()
  const letter = useStudy((s) => s.variable.letter)
  const group = useRef<SVGGElement>(null)
  const painter = useRef<ReturnType<typeof createPainter>>(null)
  useLanePainting(id, (lane) => {
    painter.current ??= createPainter(group.current!)
    painter.current(lane.inset?.items ?? [])
  })
  const { from, to, left, top, width, height } = inset
  const digits = Math.max(0, Math.min(9, 2 - Math.floor(Math.log10(to - from))))
  const stretch = `${letter} from ${formatShort(from, digits)} to ${formatShort(to, digits)}`
  return (
    <div
      role="figure"
      aria-label={`Inset of ${title}: ${stretch}`}
      className="absolute z-[5] overflow-hidden rounded-md border border-edge bg-page"
      style={{ left, top, width, height }}
    >
      <svg width={width} height={height} aria-hidden className="block">
        <g ref={group} />
      </svg>
      <button
        type="button"
        aria-label={`Close the inset of ${title}`}
        className="absolute top-0.5 right-0.5 grid size-6 place-items-center rounded-md bg-page text-quiet hover:text-ink"
        onClick={() => apply(changeLane(id, { inset: null }))}
      >
        <X size={14} aria-hidden />
      </button>
    </div>
  )
}
