import type { SliderRole } from '../contract'
import type { AreaRule } from './line'

/** Strips beyond this are not made. */
export const mostStrips = 100_000

export const ruleWords: Record<AreaRule, string> = {
  position: 'at a share of each strip',
  trapezoid: 'along a slanted top',
  simpson: 'along a parabola over two strips',
  lower: 'at the least value',
  upper: 'at the greatest value',
  random: 'at a random place in each',
}

export const namedPositions = [
  { value: '0', text: 'at the left' },
  { value: '0.5', text: 'at the middle' },
  { value: '1', text: 'at the right' },
]

export const noMarks: SliderRole['marks'] = []

export const positionMarks: SliderRole['marks'] = namedPositions.map(({ value, text }) => ({
  value: Number(value),
  text: text.replace('at the ', ''),
}))

export const cut = (text: string, at: number, length: number) =>
  `${text.slice(0, at)} ${text.slice(at + length)}`.replace(/\s+/g, ' ').trim()
