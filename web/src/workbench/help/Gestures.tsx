import type { ReactNode } from 'react'

const curve = 'M4 40 C 22 4, 34 4, 46 24 S 76 44, 92 10'

const Ruler = () => (
  <path
    d="M4 36 H92 M12 36 v5 M31 36 v5 M50 36 v5 M69 36 v5 M88 36 v5"
    className="stroke-edge"
    strokeWidth={1.5}
  />
)
/** Left and right from a place. */
const Arrows = ({ x, y }: { x: number; y: number }) => (
  <path
    d={`M${x - 14} ${y} h28 M${x - 9} ${y - 4} l-5 4 l5 4 M${x + 9} ${y - 4} l5 4 l-5 4`}
    className="stroke-rust"
    strokeWidth={1.5}
  />
)
/** Where something is pressed. */
const Hand = ({ x, y }: { x: number; y: number }) => (
  <>
    <circle cx={x} cy={y} r={3} className="fill-rust" />
    <circle cx={x} cy={y} r={7} className="stroke-rust" strokeWidth={1} />
  </>
)

/** Each drawing is 96 by 48: the curve in kelp, what the hand takes in rust or ochre. */
const gestures: { what: string; drawing: ReactNode }[] = [
  {
    what: 'Drag a flag on the ruler: its place moves, and all that hangs on it.',
    drawing: (
      <>
        <Ruler />
        <path d="M44 30 h12 v8 l-6 5 l-6 -5 z" className="fill-rust" />
        <Arrows x={50} y={22} />
      </>
    ),
  },
  {
    what: 'Press the empty ruler for a place; drag along it for a span.',
    drawing: (
      <>
        <Ruler />
        <path d="M22 36 H72" className="stroke-ochre" strokeWidth={4} />
        <path d="M20 31 h4 v10 h-4 z M70 31 h4 v10 h-4 z" className="fill-ochre" />
        <Hand x={72} y={24} />
      </>
    ),
  },
  {
    what: 'Drag a surface to turn it; drag the point on it, and its plane follows.',
    drawing: (
      <>
        <path
          d="M10 34 Q 32 2, 54 28 L 84 22 Q 62 -2, 40 20 Z"
          className="fill-page stroke-kelp"
          strokeWidth={2}
        />
        <Hand x={46} y={20} />
        <path
          d="M24 42 A 34 10 0 0 0 74 40 M70 36 l5 3 l-5 4"
          className="stroke-rust"
          strokeWidth={1.5}
        />
      </>
    ),
  },
  {
    what: 'Press a curve: what can stand at that place is offered.',
    drawing: (
      <>
        <path d={curve} className="stroke-kelp" strokeWidth={2.5} />
        <Hand x={46} y={24} />
        <rect x={56} y={14} width={34} height={22} rx={3} className="fill-page stroke-edge" />
        <path d="M61 21 h22 M61 28 h16" className="stroke-quiet" strokeWidth={1.5} />
      </>
    ),
  },
  {
    what: 'The wheel zooms where you point; over the ruler only across, over a lane’s head only up and down.',
    drawing: (
      <>
        <path d={curve} className="stroke-kelp" strokeWidth={2.5} />
        <circle cx={48} cy={24} r={13} className="stroke-rust" strokeWidth={1.5} />
        <path d="M48 18 v12 M42 24 h12" className="stroke-rust" strokeWidth={1.5} />
      </>
    ),
  },
  {
    what: 'Drag the empty lane to move the frame; press 0 to fit it again.',
    drawing: (
      <>
        <path d={curve} className="stroke-kelp" strokeWidth={2.5} />
        <Arrows x={66} y={34} />
      </>
    ),
  },
  {
    what: 'Press a rung to open or close the lane of a derivative; drag it onto another lane to lay it over.',
    drawing: (
      <>
        <rect x={6} y={6} width={22} height={12} rx={2} className="fill-kelp" />
        <rect x={6} y={20} width={22} height={12} rx={2} className="fill-page stroke-edge" />
        <path d="M30 26 C 46 26, 50 34, 60 34" className="stroke-rust" strokeWidth={1.5} />
        <path d="M56 30 l5 4 l-5 4" className="stroke-rust" strokeWidth={1.5} />
        <rect x={64} y={20} width={28} height={22} rx={2} className="fill-page stroke-edge" />
      </>
    ),
  },
  {
    what: 'Press what is underlined with dots to change it where it stands.',
    drawing: (
      <>
        <path d="M8 26 h26 M70 26 h18" className="stroke-quiet" strokeWidth={2} />
        <path d="M40 32 h24" className="stroke-rust" strokeWidth={1.5} strokeDasharray="1.5 2.5" />
        <path d="M42 26 h20" className="stroke-rust" strokeWidth={2.5} />
        <Hand x={56} y={30} />
      </>
    ),
  },
  {
    what: 'Drag a label of the picture to move it; drag a dot to move its place.',
    drawing: (
      <>
        <path d={curve} className="stroke-kelp" strokeWidth={2.5} />
        <path d="M46 18 l6 6 l-6 6 l-6 -6 z" className="fill-rust" />
        <Arrows x={66} y={20} />
      </>
    ),
  },
]

/** What the hand can do, each with a small drawing. */
export function Gestures() {
  return (
    <ul className="grid gap-x-6 gap-y-2 sm:grid-cols-2">
      {gestures.map(({ what, drawing }) => (
        <li key={what} className="flex items-center gap-3">
          <svg
            aria-hidden
            viewBox="0 0 96 48"
            className="h-12 w-24 shrink-0 rounded-md border border-rule bg-page"
            fill="none"
          >
            {drawing}
          </svg>
          <span>{what}</span>
        </li>
      ))}
    </ul>
  )
}
