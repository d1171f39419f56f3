import type { SignFigure } from '@yperkine/core'
import { useRef } from 'react'
import { useWorkbenchStore } from '../store'

const [left, width, rowHeight, legendHeight] = [40, 330, 40, 20]
const letterWidth = 6.6

/** Signs of a function and its derivatives, row under row over one axis; copied as a drawing. */
export function SignChart({ figure, name }: { figure: SignFigure; name: string }) {
  const store = useWorkbenchStore()
  const svg = useRef<SVGSVGElement>(null)
  const { from, to, rows } = figure
  const at = (x: number) => left + ((x - from) / (to - from)) * (width - left - 8)
  const top = rows.length * rowHeight + 4
  const height = top + legendHeight
  const copy = () => {
    const drawn = svg.current!.cloneNode(true) as SVGSVGElement
    drawn.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
    // A drawing that stands alone brings its colours along.
    const source = [...svg.current!.querySelectorAll('*')]
    ;[...drawn.querySelectorAll('*')].forEach((element, i) => {
      const style = getComputedStyle(source[i]!)
      element.setAttribute('fill', style.fill)
      element.setAttribute('stroke', style.stroke)
      element.removeAttribute('class')
      if (element.tagName === 'text') element.setAttribute('font-family', 'sans-serif')
    })
    void navigator.clipboard.writeText(drawn.outerHTML).then(
      () => store.getState().announce('Copied the sign chart as SVG'),
      () => store.getState().announce('The browser did not let the drawing be copied'),
    )
  }
  const summary = rows
    .map(
      (row) =>
        `${row.name}: ${row.stretches.map((s) => `${s.sign > 0 ? '+' : '−'} from ${round(s.from)} to ${round(s.to)}`).join(', ')}`,
    )
    .join('. ')
  return (
    <figure aria-label="Sign chart" className="mt-1.5">
      <figcaption className="sr-only">{summary}</figcaption>
      <svg
        ref={svg}
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        role="presentation"
      >
        {rows.map((row, i) => {
          const y = i * rowHeight + 2
          return (
            <g key={row.name}>
              <text x="2" y={y + 16} className="fill-ink font-serif italic" fontSize="14">
                {row.name}
              </text>
              {row.stretches.map((s) => {
                const [a, b] = [at(s.from), at(s.to)]
                const room = b - a
                const sign = s.sign > 0 ? '+' : '−'
                const words = `${sign} ${s.words}`
                return (
                  <g key={s.from}>
                    <rect
                      x={a}
                      y={y}
                      width={Math.max(0, room)}
                      height="22"
                      className={s.sign > 0 ? 'fill-positive' : 'fill-negative'}
                    />
                    {room > 12 && (
                      <text
                        x={(a + b) / 2}
                        y={y + 15}
                        textAnchor="middle"
                        className="fill-ink"
                        fontSize="12"
                      >
                        {words.length * letterWidth < room ? words : sign}
                      </text>
                    )}
                  </g>
                )
              })}
              {spread(row.marks.map((m) => ({ ...m, px: at(m.x) }))).map((m) => (
                <g key={`${m.x}${m.zero}`}>
                  <path
                    d={`M${m.px} ${y}V${y + 22}`}
                    className={m.zero ? 'stroke-ink' : 'stroke-brick'}
                    strokeWidth="1.5"
                    strokeDasharray={m.zero ? undefined : '2 2'}
                  />
                  {m.shown && (
                    <text
                      x={m.px}
                      y={y + 34}
                      textAnchor="middle"
                      className="fill-quiet"
                      fontSize="11"
                    >
                      {m.text}
                    </text>
                  )}
                </g>
              ))}
            </g>
          )
        })}
        <Legend figure={figure} y={top} />
      </svg>
      <button type="button" className="pill mt-1" onClick={copy} data-figure={name}>
        Copy as SVG
      </button>
    </figure>
  )
}

/** What the colours and the lines stand for, as far as they are there. */
function Legend({ figure: { rows }, y }: { figure: SignFigure; y: number }) {
  const marks = rows.flatMap((row) => row.marks)
  const signs = new Set(rows.flatMap((row) => row.stretches.map((s) => s.sign)))
  const entries = [
    ...(signs.has(1) ? [{ words: 'positive', look: 'fill-positive' }] : []),
    ...(signs.has(-1) ? [{ words: 'negative', look: 'fill-negative' }] : []),
    ...(marks.some((m) => m.zero) ? [{ words: '0 there', look: 'stroke-ink' }] : []),
    ...(marks.some((m) => !m.zero) ? [{ words: 'missing or a jump', look: 'stroke-brick' }] : []),
  ]
  const starts = entries.map((_, i) =>
    entries.slice(0, i).reduce((x, { words }) => x + words.length * letterWidth + 30, left),
  )
  return (
    <g role="list" aria-label="Legend">
      {entries.map(({ words, look }, i) => {
        const x = starts[i]!
        return (
          <g key={words} role="listitem">
            {look.startsWith('fill') ? (
              <rect x={x} y={y + 3} width="11" height="11" className={look} />
            ) : (
              <path
                d={`M${x + 5} ${y + 2}V${y + 15}`}
                className={look}
                strokeWidth="1.5"
                strokeDasharray={look === 'stroke-brick' ? '2 2' : undefined}
              />
            )}
            <text x={x + 16} y={y + 13} className="fill-quiet" fontSize="11">
              {words}
            </text>
          </g>
        )
      })}
    </g>
  )
}

const round = (x: number) => Number(x.toPrecision(4))

/** Numbers that would touch the one before are left out; the table and the sentence have them. */
function spread<M extends { px: number; text: string }>(marks: M[]): (M & { shown: boolean })[] {
  let end = -Infinity
  return [...marks]
    .sort((a, b) => a.px - b.px)
    .map((m) => {
      const half = (m.text.length * 6) / 2
      const shown = m.px - half > end
      if (shown) end = m.px + half + 3
      return { ...m, shown }
    })
}
