import { lineColours } from '../../vocabulary/members'
import { formatShort } from '../../vocabulary/numbers'
import type { LineContext, LineProblem, Mix, MixedInk } from '../contract'
import { type FamilyLine, mostMembers, usualColours } from './line'

/** A family with its numbers put in. */
export interface Members {
  ok: true
  curve: Extract<ReturnType<LineContext['curve']>, { ok: true }>['curve']
  /** The values of the letter, in order. */
  values: readonly number[]
  mixes: readonly Mix[]
  width: number
  reach: number | null
  opacity: number
}
type Refusal = { ok: false; problem: LineProblem }
const refused = (message: string, fix: string): Refusal => ({
  ok: false,
  problem: { message, fix },
})

/** Looks up all that a family stands on. */
export function membersOf(line: FamilyLine, context: LineContext): Members | Refusal {
  const found = context.curve(line.curve)
  if (!found.ok) return found
  const { curve } = found
  const numbers: Record<string, number> = {}
  for (const field of ['from', 'to', 'count', 'width', 'reach', 'opacity'] as const) {
    const text = line[field]
    if (text === undefined) continue
    const read = context.number(text)
    if (!read.ok) return read
    numbers[field] = read.value
  }
  const {
    from,
    to,
    count,
    width = 1,
    reach = null,
    opacity = 1,
  } = numbers as {
    from: number
    to: number
    count: number
    width?: number
    reach?: number
    opacity?: number
  }
  const show = (x: number) => formatShort(x, 6)
  if (!Number.isInteger(count) || count < 2 || count > mostMembers) {
    return refused(
      `a family has from 2 to ${mostMembers} members, and not ${show(count)}`,
      `give ${count > mostMembers ? mostMembers : 60}`,
    )
  }
  if (!(from < to)) {
    return refused(
      `${line.letter} runs from ${show(from)} to ${show(to)}`,
      'let it begin below its end',
    )
  }
  if (width === 0)
    return refused('a secant of width 0 goes through one point', 'give another width')
  if (reach !== null && !(reach > 0))
    return refused('a length is a number above 0', 'give 1, or leave it open')
  if (!(opacity > 0 && opacity <= 1)) return refused('an opacity lies between 0 and 1', 'give 0.5')
  const isMembers = line.what === 'members'
  if (isMembers && curve.f.parameters[line.letter] === undefined) {
    return refused(
      `${line.curve} does not hang on ${line.letter}`,
      Object.keys(curve.f.parameters).length > 0
        ? `let ${Object.keys(curve.f.parameters)[0]!} run`
        : `put a slider into the formula of ${line.curve}`,
    )
  }
  if (!isMembers && line.letter !== context.variable.letter) {
    return refused(
      `along ${line.curve} it is ${context.variable.letter} that runs, and not ${line.letter}`,
      `say it for ${context.variable.letter}`,
    )
  }
  const values = Array.from({ length: count }, (_, i) =>
    i === count - 1 ? to : from + ((to - from) * i) / (count - 1),
  )
  const mixes = mixesOf(line, values, context)
  if ('ok' in mixes) return mixes
  return { ok: true, curve, values, mixes, width, reach, opacity }
}

/** A family has so many colours at the most: more cannot be told apart. */
const mostShades = 48
const inks: Readonly<Record<(typeof lineColours)[number], MixedInk>> = {
  ...{ kelp: 'curve1', slate: 'curve2', plum: 'curve3', moss: 'curve4', umber: 'curve5' },
  ...{ rust: 'place', ochre: 'span' },
}

/** The colour of each member, by its place in the row or by expressions of the letter. */
function mixesOf(
  line: FamilyLine,
  values: readonly number[],
  context: LineContext,
): readonly Mix[] | Refusal {
  if (line.hue !== undefined || line.lightness !== undefined) {
    const of = (text: string) => {
      // A slider runs in the place of the axis here: its letter is read as the variable.
      const own = text.replace(
        new RegExp(`(?<![\\p{L}\\d])${line.letter}(?![\\p{L}\\d])`, 'gu'),
        context.variable.letter,
      )
      return context.formula(own)
    }
    const [hue, lightness] = [of(line.hue ?? '20'), of(line.lightness ?? '45')]
    if (!hue.ok) return hue
    if (!lightness.ok) return lightness
    return values.map((v) => ({
      hue: Math.round((((hue.f.value(v) || 0) % 360) + 360) % 360),
      lightness: Math.round(Math.max(0, Math.min(100, lightness.f.value(v) || 0))),
    }))
  }
  const colours = (line.colours ?? usualColours).map((c) => inks[c])
  const shades = Math.min(mostShades, values.length)
  const all = Array.from({ length: shades }, (_, shade): Mix => {
    if (colours.length === 1) return { between: [colours[0]!, colours[0]!], share: 0 }
    const way = (shade / (shades - 1)) * (colours.length - 1)
    const k = Math.min(colours.length - 2, Math.floor(way))
    return { between: [colours[k]!, colours[k + 1]!], share: way - k }
  })
  return values.map((_, i) => all[Math.round((i / (values.length - 1)) * (shades - 1))]!)
}
