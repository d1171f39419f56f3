import { blankStudy, type Statement, type Study, studySchema } from '../src'
import { areaRules } from '../src/statements/area/line'
import { tableColumns } from '../src/tables/table'
import type { Chance } from './formulas'

const formulas = [
  ...['x', 'x^2', '6 + 4 sin(0.9x) - 0.3x', '1/x', 'tan x', 'ln x', 'sqrt x', 'e^x', 'e^-x'],
  ...['floor x', '|x - 1|', 'x^3 - 3x', 'sin(1/x)', '1E300 x', '1E-300 x', 'x^x', '0', '5'],
  ...['1 if x < 2; x otherwise', 'a x + h', 'arctan(1E9 x)', '1/(x - a)'],
]

const held = (x: number) => Math.max(-Number.MAX_VALUE, Math.min(Number.MAX_VALUE, x))

/** A finite number of any size that doubles have, often one at the very edge of what they hold. */
export function anyNumber(chance: Chance): number {
  const sign = chance.once(2) ? -1 : 1
  switch (chance.below(6)) {
    case 0:
      return chance.pick([0, 1e-310, 5e-324, 1e-307, 1e-320, 1e308, 1.7e308, 2 ** 53 + 2, 0.1])
    case 1:
      return held(sign * (1 + chance.share()) * 10 ** (chance.below(629) - 320))
    case 2:
      return sign * chance.below(10)
    case 3:
      return sign * Number((chance.share() * 10).toFixed(1))
    default:
      return sign * chance.share() * 10
  }
}

const numberText = (value: number) => String(value).replace('e+', 'E').replace('e', 'E')

/** Two different numbers in order: any two, or two neighbours far from 0 or near it. */
export function anySpan(chance: Chance): [number, number] {
  const a = anyNumber(chance)
  const b = chance.once(3) ? held(a + Math.abs(anyNumber(chance)) * 1e-12) : anyNumber(chance)
  return a < b ? [a, b] : b < a ? [b, a] : a === 0 ? [0, 1e-310] : [-Math.abs(a), Math.abs(a)]
}

function anyLine(chance: Chance, id: string): Statement {
  const [from, to] = anySpan(chance).map(numberText) as [string, string]
  const usual = chance.once(3)
  const span = usual ? { from: '0', to: '5' } : { from, to }
  const place = () => chance.pick(['a', 'a + h', numberText(anyNumber(chance)), '2'])
  const over = { id, curve: 'f', span }
  const at = { id, curve: 'f', order: chance.below(2) }
  return chance.pick<() => Statement>([
    () => ({ kind: 'tangent', ...at, place: place(), extent: 'whole', trail: chance.once(2) }),
    () => ({ kind: 'normal', ...at, place: place() }),
    () => ({ kind: 'value', ...at, place: place(), trail: true }),
    () => ({ kind: 'secant', ...at, from: place(), to: place(), closing: chance.once(2) }),
    () => ({ kind: 'averageRate', ...over, order: 0 }),
    () => ({ kind: 'average', ...over, order: 0 }),
    () => ({
      kind: 'area',
      ...over,
      order: 0,
      count: chance.pick(['1', '8', '1000', 'n', numberText(anyNumber(chance))]),
      rule: chance.pick(areaRules),
      position: chance.pick(['0', '0.5', '1', numberText(anyNumber(chance))]),
      seed: 1,
      convergence: chance.once(2),
      tolerance: numberText(Math.abs(anyNumber(chance))),
    }),
    () => ({ kind: 'between', ...over, order: 0, target: 'g' }),
    () => ({
      kind: 'table',
      ...over,
      order: 0,
      step: numberText(Math.abs(anyNumber(chance))),
      h: numberText(anyNumber(chance)),
      columns: [...tableColumns],
    }),
    () => ({ kind: 'where', ...over, order: chance.below(2), target: place() }),
    () => ({
      kind: 'features',
      ...over,
      order: 0,
      only: 'features',
      ends: chance.once(2),
      labels: chance.once(2),
    }),
    () => ({ kind: 'signs', ...over, order: 0, speed: chance.once(2) }),
    () => ({
      kind: 'distance',
      ...at,
      name: 'd',
      order: 0,
      place: 'a',
      x: place(),
      y: place(),
    }),
    () => ({ kind: 'accumulate', id, name: 'A', curve: 'f', order: 0, lower: place() }),
    () => ({ kind: 'rate', id, curve: 'f', order: 1 }),
  ])()
}

const blankCurve = { kind: 'curve', unit: '' } as const

/** A study whose spans, sliders, frames and heights hold numbers of any size. */
export function anyStudy(chance: Chance): Study {
  const [from, to] = anySpan(chance)
  const blank = blankStudy()
  const slider = (name: string) => {
    const [low, high] = chance.once(2) ? [0, 10] : anySpan(chance)
    return {
      name,
      from: low,
      to: high,
      value: chance.once(3) ? anyNumber(chance) : low / 2 + high / 2,
      step: Math.abs(anyNumber(chance)) || 0.1,
      place: name === 'a',
    }
  }
  const frame = () => (chance.once(3) ? anySpan(chance) : null)
  const study = {
    ...blank,
    title: 'Any numbers',
    sliders: ['a', 'h', 'n'].map(slider),
    lines: [
      {
        ...blankCurve,
        id: 'f',
        name: 'f',
        formula: chance.pick(formulas),
        span: chance.once(3)
          ? { from: '-10', to: '10' }
          : { from: numberText(from), to: numberText(to) },
      },
      { ...blankCurve, id: 'g', name: 'g', formula: '2 - x', span: { from: '-10', to: '10' } },
      anyLine(chance, 'line1'),
    ],
    lanes: [0, 1, -1].slice(0, 1 + chance.below(3)).map((order) => ({
      kind: 'lane',
      id: `lane${order}`,
      curve: 'f',
      order,
      frame: frame(),
      equalScale: chance.once(4),
      inset: chance.once(4) ? anySpan(chance) : null,
    })),
    frame: frame(),
  }
  return studySchema.parse(study)
}
