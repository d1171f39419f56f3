/** Which lane a mark belongs to: the curve's own, or one of its derivatives'. */
export interface LaneOf {
  curve: string
  order: number
}

/** What a line adds to the picture, in the coordinates of its lane. */
export type Mark = { lane: LaneOf } & (
  | { kind: 'dot'; x: number; y: number; place: string; label?: string }
  | { kind: 'line'; x: number; y: number; slope: number; extent: 'whole' | 'short' }
  | { kind: 'riseOverRun'; x: number; y: number; slope: number; unitLabel: (run: number) => string }
  | { kind: 'chord'; x: number; y: number; toX: number; toY: number; rise: string; run: string }
  | { kind: 'joint'; x: number; y: number; toX: number; toY: number; label: string }
  | { kind: 'level'; y: number; from: number; to: number; label: string }
  | { kind: 'stem'; x: number; y: number; label: string }
  | { kind: 'points'; points: readonly (readonly [x: number, y: number])[] }
  | { kind: 'graph'; f: (x: number) => number; from: number; to: number }
  | {
      kind: 'strips'
      strips: readonly { from: number; to: number; height: number }[]
      /** The top of a strip that is not level, or null. */
      curved: ((strip: number, x: number) => number) | null
      slivers: readonly { strip: number; from: number; to: number; area: number }[]
      f: (x: number) => number
    }
  | {
      kind: 'shade'
      from: number
      to: number
      f: (x: number) => number
      /** The other curve, or the axis. */
      g?: (x: number) => number
    }
)
