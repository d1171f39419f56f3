import type { Mark } from '../../statements/contract'
import { type Frame, toPixelX, toPixelY } from '../frame'
import { round } from '../sampleCurve'
import type { Sample } from './mark'

/** Where the words someone has put to a line belong: beside its point, on it, or above its middle. */
export function captionSpot(
  mark: Mark,
  frame: Frame,
  sample: Sample,
): { x: number; y: number; beside: boolean } | null {
  const at = (x: number, y: number, beside = false) => {
    const [px, py] = [toPixelX(frame, x), toPixelY(frame, y)]
    const seen = px >= 0 && px <= frame.width && py >= 0 && py <= frame.height
    return seen ? { x: round(px), y: round(py), beside } : null
  }
  switch (mark.kind) {
    case 'dot':
    case 'stem':
      return at(mark.x, mark.y, true)
    case 'line':
    case 'riseOverRun':
    case 'chord':
      return at(mark.x, mark.y, true)
    case 'joint':
      return at(mark.toX, mark.toY, true)
    case 'level':
      return at((Math.max(mark.from, frame.x[0]) + Math.min(mark.to, frame.x[1])) / 2, mark.y)
    case 'spot':
      return at(mark.x, mark.y, true)
    case 'asymptote':
      return mark.x === undefined
        ? at(frame.x[1], mark.y + mark.slope * frame.x[1])
        : at(mark.x, frame.y[1])
    case 'points': {
      const point = mark.points[Math.floor(mark.points.length / 2)]
      return point ? at(...point, true) : null
    }
    case 'graph':
    case 'shade': {
      const x = (Math.max(mark.from, frame.x[0]) + Math.min(mark.to, frame.x[1])) / 2
      return at(x, sample(mark.of)(x))
    }
    case 'body':
      return at(mark.x, mark.y, true)
    case 'walk': {
      const probe = mark.probes.at(-1)
      return probe ? at(probe.x, probe.value, true) : null
    }
    case 'family': {
      const middle = mark.lines[Math.floor(mark.lines.length / 2)]
      return middle ? at(middle.x, middle.y, true) : null
    }
    case 'path':
    case 'note':
    case 'starts':
    case 'trail':
      return null
    case 'strips': {
      const strip = mark.strips[Math.floor(mark.strips.length / 2)]
      return strip ? at((strip.from + strip.to) / 2, strip.height) : null
    }
  }
}
