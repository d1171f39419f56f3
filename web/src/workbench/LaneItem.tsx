import type { Ink, Item } from '@yperkine/core'
import { memo } from 'react'

const strokes: Record<Ink, string> = {
  curve1: 'stroke-kelp',
  curve2: 'stroke-slate',
  curve3: 'stroke-plum',
  curve4: 'stroke-moss',
  curve5: 'stroke-umber',
  place: 'stroke-rust',
  axis: 'stroke-axis',
  grid: 'stroke-grid',
  quiet: 'stroke-quiet',
}
/** The order of derivative as dashes: f solid, f′ dashed, f″ dotted, f‴ dash-dot. */
const dashes = ['', '11 6', '0.1 6', '11 5 0.1 5']

/** Draws one item of the display list; knows nothing of what it means. */
export const LaneItem = memo(function LaneItem({ item }: { item: Item }) {
  const opacity = item.dimmed ? 0.35 : undefined
  switch (item.kind) {
    case 'path':
      return (
        <path
          d={item.d}
          fill="none"
          className={strokes[item.ink]}
          style={{ strokeWidth: `calc(${item.width}px * var(--line))` }}
          strokeDasharray={item.dotted ? '2 4' : dashes[item.order ?? 0] || undefined}
          strokeLinecap={item.order !== undefined ? 'round' : 'butt'}
          strokeLinejoin="round"
          opacity={opacity}
        />
      )
    case 'label':
      return (
        <text
          x={item.x}
          y={item.y}
          textAnchor={item.anchor}
          className="fill-rust stroke-page text-[calc(13px*var(--type))] font-semibold select-none"
          strokeWidth="4"
          strokeLinejoin="round"
          paintOrder="stroke"
          opacity={opacity}
        >
          {item.text}
        </text>
      )
    case 'dot':
      return (
        <path
          d={`M${item.x} ${item.y - 8}l8 8l-8 8l-8 -8Z`}
          className="fill-rust stroke-page"
          strokeWidth="2"
          opacity={opacity}
        />
      )
  }
})
