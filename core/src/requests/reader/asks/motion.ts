import { curveText, type CurveRef } from '../../../statements/shared/slots'
import { type Ask, type Asked, at, over, raised, movers } from './ask'

const motion = (ref: CurveRef, { parts }: Asked) => {
  const as = parts.readAs === undefined ? '' : ` as a ${parts.readAs}`
  return [`speeding up ${curveText(ref)}${as}${over(parts)}`]
}

/** Motion along a line, and distances. */
export const motionAsks: readonly Ask[] = [
  {
    said: `
      speeding up, slowing down, speed up, slow down, motion, rest, at rest, displacement, distance,
      total distance, distance travelled, distance traveled, total distance travelled, total
      distance traveled, displacement distance, speed, change direction, changes direction, turn
      around, turns around, turn back, reverse direction, moving forward, moving right, moving left,
      moving backward, moving backwards, moving forwards, moving, move, moving up, moving down,
      stop, stops, stopped, standing still, accelerating, decelerating, how far
    `,
    also: `
      ${movers}, total, travelled, traveled, speeding, slowing, up, down, direction, moving, right,
      left, or, interval, intervals, far, travel, go, covered, instantaneously
    `,
    uses: ['span', 'pair', 'rule', 'place', 'readAs'],
    why: (_ref, { parts, letter }) =>
      parts.place === undefined
        ? ''
        : `The line has every stretch: the one with ${letter} = ${parts.place} tells.`,
    own: (ref, asked) => {
      const { parts, words } = asked
      if (
        parts.place !== undefined &&
        !/\b(?:speeding|slowing|moving|accelerating|decelerating)/.test(words)
      )
        return null
      if (parts.rule !== undefined && !/\bmov/.test(words)) return null
      if (asked.letter !== 't' && /\b(?:far|stops?)\b/.test(words)) return null
      return motion(ref, asked)
    },
  },
  {
    said: 'average speed, mean speed',
    uses: ['span', 'pair'],
    own: motion,
    why: () => 'Average speed is the distance over the time: this line has the distance.',
  },
  {
    said: 'speed',
    also: `instantaneous, ${movers}`,
    uses: ['place'],
    own: (ref, { parts }) =>
      parts.place === undefined
        ? null
        : [`value of ${curveText(raised(ref, /^v/i.test(ref.curve) ? 0 : 1))} at ${parts.place}`],
    why: () => 'Speed is the size of the velocity: this line has the velocity, with its sign.',
  },
  {
    said: `
      distance, distance from, distance point, closest, closest point, nearest, nearest point,
      shortest distance, minimum distance, least distance
    `,
    also: 'point, curve, that, nearest, closest, lies, on, minimum, shortest',
    uses: ['point', 'place'],
    own: (ref, { parts, words }) =>
      parts.point
        ? [`distance from ${curveText(ref)}${at(parts)} to (${parts.point.x}, ${parts.point.y})`]
        : /\b(?:total|travel|far)/.test(words)
          ? null
          : [`distance from ${curveText(ref)}`],
  },
]
