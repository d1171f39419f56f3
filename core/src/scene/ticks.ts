import { tickStep, ticks } from 'd3-array'
import { decimalsOfStep, formatNumber } from '../study/numbers'

export interface Tick {
  value: number
  text: string
}

/** Round values between two ends, about one every `apart` pixels, each with its label. */
export function axisTicks(from: number, to: number, length: number, apart: number): Tick[] {
  const wanted = Math.max(1, Math.floor(length / apart))
  const step = Math.abs(tickStep(from, to, wanted))
  const decimals = decimalsOfStep(Number(step.toPrecision(12)))
  return ticks(from, to, wanted).map((value) => ({
    value: value + 0,
    text: tickText(value, decimals),
  }))
}

function tickText(value: number, decimals: number): string {
  const size = Math.abs(value)
  if (value !== 0 && (size >= 1e6 || size < 1e-4)) {
    const [mantissa, exponent] = value.toExponential().split('e') as [string, string]
    const digits = Number(Number(mantissa).toPrecision(6))
    return `${digits}E${exponent.replace('+', '')}`.replace(/-/g, '−')
  }
  return formatNumber(value, decimals)
}
