/**
 * A picture as it is handed on: shapes and words in pixels from its top left corner, with their colours.
 * It knows nothing of a screen, and each writer (SVG, canvas, PDF) draws the same.
 */
export interface Drawing {
  width: number
  height: number
  /** null where the ground is left transparent. */
  ground: string | null
  title: string
  /** What is seen, in a few sentences, for those who do not see it. */
  description: string
  items: readonly Drawn[]
}

/** How words are set: the two families of the project. */
export interface Face {
  family: 'sans' | 'serif'
  weight: 400 | 600
  italic: boolean
}

/** Lines that slant one way or the other, so that insides differ without colour. */
export interface Hatch {
  hatch: 'up' | 'down'
  colour: string
}

export type Drawn =
  | {
      kind: 'path'
      d: string
      stroke: string | null
      width: number
      /** Lengths of dashes and gaps; none where the line is whole. */
      dashes: readonly number[]
      round: boolean
      fill: string | Hatch | null
      opacity: number
      /** In the notation of SVG. */
      transform?: string
    }
  | {
      kind: 'words'
      x: number
      /** The line the letters stand on. */
      y: number
      text: string
      size: number
      face: Face
      anchor: 'start' | 'middle' | 'end'
      colour: string
      /** What keeps them readable on lines. */
      halo: string | null
      opacity: number
    }
  /** Lines of words and mathematics from a top left corner, broken to a width. */
  | {
      kind: 'note'
      x: number
      y: number
      width: number
      height: number
      /** Where its edge is held: the other one follows from how its words turn out. */
      right: boolean
      lines: readonly (readonly NotePiece[])[]
      size: number
      weight: 400 | 600
      colour: string
      ground: string | null
    }
  | {
      kind: 'group'
      x: number
      y: number
      clip: { width: number; height: number } | null
      /** How much larger than written all in it is. */
      scale?: number
      items: readonly Drawn[]
    }

export type NotePiece = { text: string; strong: boolean } | { latex: string }

/** Sets words and mathematics as outlines; sizes in pixels. */
export interface Typesetter {
  /** The outlines of a text from its start on its line, and how wide it is. */
  words(text: string, face: Face, size: number): Outline
  maths(latex: string, size: number): Outline & { above: number; below: number }
}
export interface Outline {
  d: string
  width: number
  /** Characters that no font of ours has, with where they start. */
  rest?: readonly { text: string; x: number }[]
}
