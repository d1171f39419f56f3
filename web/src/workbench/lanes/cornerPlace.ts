import type { Corner } from '@yperkine/core'

/** A derivative has its band at the foot; the numbers of the ticks stand at the left edge. */
const feet = { plain: 'bottom-1.5', banded: 'bottom-7' }

/** Where something in a corner of a lane stands; `second` is what stands behind something else there. */
export function cornerPlace(corner: Corner, order: number, second = false): string {
  const side = corner.endsWith('left') ? 'left-11' : 'right-1.5'
  if (corner.startsWith('top')) return `${side} ${second ? 'top-7' : 'top-1.5'}`
  return `${side} ${order === 1 || order === 2 ? feet.banded : feet.plain}`
}
