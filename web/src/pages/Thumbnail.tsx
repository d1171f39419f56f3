import type { Ink, StudySummary } from '@yperkine/core'
import { fills, insides, strokes } from '../parts/inks'

/** Hatches would be too fine here. */
const flat: Record<string, string> = {
  ...insides,
  over: insides.overFlat,
  short: insides.shortFlat,
}

const [shownWidth, shownHeight] = [148, 66]
const unseen = { axis: null, width: 592, height: 264, items: [] }
/** Drawn so small, a line needs more than its usual width to be seen. */
const lineScale = 2.4

/** A study as it opens. */
export function Thumbnail({ study }: { study: StudySummary }) {
  const { axis, width, height, items } = study.thumbnail ?? unseen
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      width={shownWidth}
      height={shownHeight}
      aria-hidden
      className="hidden shrink-0 rounded-md border border-rule bg-page sm:block"
    >
      {axis !== null && <path d={`M0 ${axis}H${width}`} className="stroke-rule" />}
      {items.map(({ d, ink, width: line, fill, order = 0 }, i) => (
        <path
          key={i}
          d={d}
          className={
            fill === 'own' ? `${strokes[ink as Ink]} ${fills[ink as Ink]}` : strokes[ink as Ink]
          }
          style={fill === 'own' ? undefined : { fill: flat[fill ?? ''] ?? 'none' }}
          strokeWidth={line * lineScale}
          strokeDasharray={order === 1 ? '22 14' : undefined}
          strokeLinejoin="round"
        />
      ))}
    </svg>
  )
}
