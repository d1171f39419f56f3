import type { SignFigure } from '../statements/contract'
import type { Drawn, Face, Typesetter } from './drawing'
import type { Palette } from './palettes'

const rowHeight = 40
const bandHeight = 22
/** The names of the rows stand in front of the bands, in pixels. */
const nameRoom = 44
const name: Face = { family: 'serif', weight: 400, italic: true }
const plain: Face = { family: 'sans', weight: 400, italic: false }

/** How tall the chart is, in pixels. */
export const signChartHeight = ({ rows }: SignFigure) => rows.length * rowHeight + 6

/**
 * Signs of a function and its derivatives from a top left corner, row under row over one axis. A sign is
 * told by its character and its ground; what has no room beside it is left to the words about it.
 */
export function signChart(
  { from, to, rows }: SignFigure,
  width: number,
  { inks, ...palette }: Palette,
  setter: Typesetter,
): Drawn[] {
  const at = (x: number) => nameRoom + ((x - from) / (to - from)) * (width - nameRoom - 20)
  const words = (
    text: string,
    x: number,
    y: number,
    size: number,
    face: Face,
    anchor: 'start' | 'middle',
  ): Drawn => ({
    ...{ kind: 'words', text, x, y, size, face, anchor, opacity: 1, halo: null },
    colour: size < 12 ? inks.quiet : inks.ink,
  })
  const fits = (text: string, size: number, room: number) =>
    setter.words(text, plain, size).width < room - 4
  return rows.flatMap((row, i): Drawn[] => {
    const top = i * rowHeight + 2
    let end = -Infinity
    return [
      words(row.name, 0, top + 16, 15, name, 'start'),
      ...row.stretches.flatMap((stretch): Drawn[] => {
        const [a, b] = [at(stretch.from), at(stretch.to)]
        const sign = stretch.sign > 0 ? '+' : '−'
        const told = [`${sign} ${stretch.words}`, sign].find((text) => fits(text, 12, b - a))
        return [
          {
            ...{ kind: 'path', d: `M${a} ${top}H${b}v${bandHeight}H${a}z`, round: false },
            ...{ stroke: inks.quiet, width: 0.75, dashes: [], opacity: 1 },
            fill: stretch.sign > 0 ? palette.positive : palette.negative,
          },
          ...(told === undefined ? [] : [words(told, (a + b) / 2, top + 15, 12, plain, 'middle')]),
        ]
      }),
      ...[...row.marks]
        .sort((p, q) => p.x - q.x)
        .flatMap(({ x, zero, text }): Drawn[] => {
          const px = at(x)
          const half = setter.words(text, plain, 11).width / 2
          const isFree = px - half > end
          if (isFree) end = px + half + 3
          return [
            {
              ...{ kind: 'path', d: `M${px} ${top}v${bandHeight}`, round: false, fill: null },
              ...{ stroke: inks.ink, width: 1.5, dashes: zero ? [] : [2, 2], opacity: 1 },
            },
            ...(isFree ? [words(text, px, top + 34, 11, plain, 'middle')] : []),
          ]
        }),
    ]
  })
}
