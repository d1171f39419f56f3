import type { Drawn } from '@yperkine/core'
import { memo } from 'react'

/** What a picture is made of, as elements of an SVG. */
export const DrawnParts = memo(function DrawnParts({ items }: { items: readonly Drawn[] }) {
  return items.map((item, i) => <DrawnPart key={i} item={item} />)
})

function DrawnPart({ item }: { item: Drawn }) {
  if (item.kind === 'path') {
    const { d, stroke, width, dashes, fill, opacity } = item
    return (
      <path
        d={d}
        fill={typeof fill === 'string' ? fill : 'none'}
        stroke={stroke ?? 'none'}
        strokeWidth={width}
        strokeLinejoin="round"
        strokeLinecap="round"
        {...(dashes.length > 0 ? { strokeDasharray: dashes.join(' ') } : {})}
        {...(opacity === 1 ? {} : { opacity })}
      />
    )
  }
  if (item.kind !== 'words') return null
  const { x, y, text, size, face, anchor, colour, halo } = item
  return (
    <text
      x={x}
      y={y}
      fontSize={size}
      textAnchor={anchor}
      fill={colour}
      fontWeight={face.weight}
      className={`${face.family === 'serif' ? 'font-serif' : 'font-sans'} ${face.italic ? 'italic' : ''}`}
      {...(halo === null ? {} : { stroke: halo, strokeWidth: 3, paintOrder: 'stroke' })}
    >
      {text}
    </text>
  )
}
