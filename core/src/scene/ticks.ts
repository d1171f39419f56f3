import { tickStep, ticks } from 'd3-array'
import { decimalsOfStep, formatNumber } from '../vocabulary/numbers'

export interface Tick {
  value: number
  text: string
}

/** The width of a figure in the type of the ticks, and the room between two labels, in pixels. */
const characterWidth = 7.2
const labelGap = 10

/**
 * Round values between two ends, about one every `apart` pixels, each with its label. On a level
 * axis they get sparser until no label touches the next.
 */
export function axisTicks(
  from: number,
  to: number,
  length: number,
  apart: number,
  level = false,
): Tick[] {
  for (let wanted = Math.max(1, Math.floor(length / apart)); ; wanted -= 1) {
    const step = Math.abs(tickStep(from, to, wanted))
    const decimals = decimalsOfStep(Number(step.toPrecision(12)))
    const all = ticks(from, to, wanted).map((value) => ({
      value: value + 0,
      text: tickText(value, decimals),
    }))
    if (!level || wanted <= 1 || fits(all, step * (length / (to - from)))) return all
  }
}

const fits = (all: readonly Tick[], spacing: number) =>
  Math.max(0, ...all.map(({ text }) => text.length)) * characterWidth + labelGap <= spacing

function tickText(value: number, decimals: number): string {
  const size = Math.abs(value)
  if (value !== 0 && (size >= 1e6 || size < 1e-4)) {
    const [mantissa, exponent] = value.toExponential().split('e') as [string, string]
    const digits = Number(Number(mantissa).toPrecision(6))
    return `${digits}E${exponent.replace('+', '')}`.replace(/-/g, '−')
  }
  return formatNumber(value, decimals)
}

/** Steps of an axis that counts in multiples of π, as numerator and denominator. */
const piSteps: readonly [number, number][] = [
  [1, 12],
  [1, 6],
  [1, 4],
  [1, 3],
  [1, 2],
  [1, 1],
  [2, 1],
  [5, 1],
  [10, 1],
]

/** Multiples of π between two ends; outside the range where they help, plain round values. */
export function piTicks(from: number, to: number, length: number, apart: number): Tick[] {
  const wanted = Math.max(1, Math.floor(length / apart))
  const found = piSteps.find(([n, d]) => (to - from) / ((n * Math.PI) / d) <= wanted)
  const smallest = (Math.PI * piSteps[0]![0]) / piSteps[0]![1]
  if (!found || to - from < 2 * smallest) return axisTicks(from, to, length, apart, true)
  const [n, d] = found
  const step = (n * Math.PI) / d
  const first = Math.ceil(from / step - 1e-9)
  const last = Math.floor(to / step + 1e-9)
  return Array.from({ length: last - first + 1 }, (_, i) => ({
    value: (first + i) * step,
    text: piText((first + i) * n, d),
  }))
}

function piText(n: number, d: number): string {
  if (n === 0) return '0'
  let [a, b] = [Math.abs(n), d]
  while (b !== 0) [a, b] = [b, a % b]
  const [top, bottom] = [Math.abs(n) / a, d / a]
  const multiple = `${top === 1 ? '' : top}π`
  return `${n < 0 ? '−' : ''}${multiple}${bottom === 1 ? '' : `/${bottom}`}`
}
