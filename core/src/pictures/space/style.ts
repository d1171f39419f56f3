import type { Drawn, Face as Type } from '../drawing'
import type { Palette } from '../palettes'

export const sans: Type = { family: 'sans', weight: 400, italic: false }
export const strong: Type = { ...sans, weight: 600 }
export const letter: Type = { family: 'serif', weight: 400, italic: true }

/** How a view of surfaces is drawn. */
export interface SpaceStyle {
  palette: Palette
  /** On a dark ground light is more ink, and not less. */
  isDark: boolean
  /** How much larger than usual words and lines are. */
  scale: number
}

export const round = (v: number) => Math.round(v * 10) / 10
export const words = (
  { x, y }: { x: number; y: number },
  text: string,
  size: number,
  face: Type,
  anchor: 'start' | 'middle' | 'end',
  colour: string,
  halo: string | null,
): Drawn => ({
  ...{
    kind: 'words',
    x: round(x),
    y: round(y),
    text,
    size,
    face,
    anchor,
    colour,
    halo,
    opacity: 1,
  },
})
