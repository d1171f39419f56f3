import * as I from '../arithmetic/intervals'
import type { Interval } from '../arithmetic/intervals'

/** So many units in the last place from an end of the span a place counts as that end. */
export const endSlack = 4

export const ulpOf = (x: number) => I.up(Math.abs(x)) - Math.abs(x)

/** Whether a place may be an end of the span, which is the decimal that its double stands for. */
export const isAtEnd = ({ lo, hi }: Interval, end: number) =>
  lo <= end + endSlack * ulpOf(end) && hi >= end - endSlack * ulpOf(end)
