import { seeded } from '../src/search/population'

/** A source of random choices that a seed makes repeatable. */
export interface Chance {
  /** From 0 to 1, without 1. */
  share(): number
  /** A whole number from 0 to n - 1. */
  below(n: number): number
  pick<T>(of: readonly T[]): T
  /** True once in n times on average. */
  once(n: number): boolean
}

export function chanceFrom(seed: number): Chance {
  const share = seeded(seed)
  const below = (n: number) => Math.floor(share() * n)
  return { share, below, pick: (of) => of[below(of.length)]!, once: (n) => below(n) === 0 }
}

const functions = [
  ...['sin', 'cos', 'tan', 'sec', 'csc', 'cot', 'arcsin', 'arccos', 'arctan', 'sinh', 'cosh'],
  ...['tanh', 'exp', 'ln', 'log', 'sqrt', 'cbrt', 'abs', 'sgn', 'floor', 'ceil'],
]

/** A number with one to three decimals that doubles do not hold, or a small whole one. */
export function decimalText(chance: Chance): string {
  const digits = chance.below(4)
  const value = (chance.below(61) - 30) / (digits > 1 ? 7 : 3)
  return String(Number(value.toFixed(digits)) || 1)
}

/** A random formula of x, as text; `depth` bounds how far it nests. */
export function randomFormula(chance: Chance, depth = 3): string {
  if (depth === 0 || chance.once(6)) {
    return chance.pick(['x', 'x', 'x', '1', '2', 'π', 'e', decimalText(chance)])
  }
  const part = () => randomFormula(chance, depth - 1)
  switch (chance.below(12)) {
    case 0:
    case 1:
      return `(${part()} + ${part()})`
    case 2:
      return `(${part()} - ${part()})`
    case 3:
    case 4:
      return `(${part()})(${part()})`
    case 5:
      return `(${part()})/(${part()})`
    case 6:
      return `(${part()})^${chance.pick(['2', '3', '(1/3)', '(2/3)', '(-1)', '0.5', '(x)'])}`
    case 7:
      return `${chance.pick(['max', 'min'])}(${part()}, ${part()})`
    case 8:
      return `(${part()} if x < ${chance.below(7) - 3}; ${part()} otherwise)`
    default:
      return `${chance.pick(functions)}(${part()})`
  }
}

const breakers: readonly ((u: string) => string)[] = [
  (u) => `sqrt(${u})`,
  (u) => `ln(${u})`,
  (u) => `arcsin(${u})`,
  (u) => `arccos(${u})`,
  (u) => `1/(${u})`,
  (u) => `|${u}|`,
  (u) => `(${u})^(1/3)`,
  (u) => `(${u})^(2/3)`,
  (u) => `tan(${u})`,
  (u) => `csc(π(${u}))`,
  (u) => `floor(${u})`,
  (u) => `sgn(${u})`,
  (u) => `(x^2 if ${u} < 0; 2 - x otherwise)`,
  (u) => `max(0, ${u})`,
  (u) => `log(${u})/(${u})`,
]

export interface Case {
  formula: string
  /** The decimal at which what stands inside vanishes. */
  at: number
  from: number
  to: number
}

/**
 * A textbook formula whose break or end of domain is a decimal that no double holds, on a span that
 * often begins or ends just there.
 */
export function decimalBreak(chance: Chance): Case {
  const places = 10 ** (1 + chance.below(3))
  const at = (chance.below(4 * places) - 2 * places) / places
  const scale = chance.pick([1, 1, 2, 3, 5, 7])
  const sign = (v: number) => (v < 0 ? `+ ${-v}` : `- ${v}`)
  // (s x - s c) and (x/s - c/s) vanish at the decimal c.
  const shift = Number((scale * at).toFixed(6))
  const inner = chance.pick([
    `x ${sign(at)}`,
    `${scale}x ${sign(shift)}`,
    `${-scale}x ${sign(-shift)}`,
    `x/${Math.abs(at) || 0.3}`,
  ])
  const formula = chance.pick(breakers)(inner)
  const reach = (1 + chance.below(3 * places)) / places
  const [from, to] = chance.pick([
    [at, at + reach],
    [at - reach, at],
    [at - reach, at + reach],
    [-3, 3],
  ] as const)
  const inside = inner.startsWith('x/') ? 0 : at
  return { formula, at: inside, from: Number(from.toFixed(6)), to: Number(to.toFixed(6)) }
}

/** Products of powers, roots, exponentials and logarithms: what rules of integration meet. */
export function productOfPowers(chance: Chance): string {
  const linear = () => chance.pick(['x', 'x', '(x + 2)', '(2x + 1)', '(3 - x)', '(x^2 + 1)'])
  const factor = () =>
    chance.pick([
      () => `${linear()}^${chance.pick(['2', '3', '(-1)', '(-2)', '(1/2)', '(3/2)', '(1/3)'])}`,
      () => `√${linear()}`,
      () => `cbrt(${linear()})`,
      () => linear(),
      () => `e^(${chance.pick(['-x', '2x', 'x^2', '-x/2'])})`,
      () => `ln(${chance.pick(['x', 'x + 3', '2x', 'x^2 + 1'])})`,
      () => `${chance.pick(['sin', 'cos'])}(${chance.pick(['x', '2x', 'x^2'])})`,
    ])()
  const count = 1 + chance.below(3)
  const above = Array.from({ length: count }, factor).join(' · ')
  return chance.once(4) ? `(${above})/(${factor()})` : above
}
