/**
 * Stands first in a picture whose parts move. It is not seen, and reaches further than they do: the
 * extent of what is drawn stays the same, so a browser need not gather its layers anew when a part
 * moves, which takes longer than drawing it.
 */
export function Expanse() {
  return (
    <rect
      x={-4000}
      y={-4000}
      width={12_000}
      height={12_000}
      className="pointer-events-none fill-transparent"
    />
  )
}
