import { spellings } from '../functions'
/**
 * What a pasted LaTeX command stands for in a formula. The list covers what a worksheet or a
 * paper uses for the functions of this language; sizes and spaces say nothing and are passed over.
 */
export type LatexMeaning =
  /** Read as if this text stood there. */
  | { text: string }
  /** \frac{above}{below}, \sqrt[n]{…} */
  | { kind: 'fraction' | 'latexRoot' }
  /** Passed over. */
  | { kind: 'nothing' }
  /** Its braces hold words or an upright name, read without the command. */
  | { kind: 'upright' }

const letters: Record<string, string> = {
  alpha: 'α',
  beta: 'β',
  gamma: 'γ',
  delta: 'δ',
  epsilon: 'ε',
  varepsilon: 'ε',
  zeta: 'ζ',
  eta: 'η',
  theta: 'θ',
  kappa: 'κ',
  lambda: 'λ',
  mu: 'μ',
  nu: 'ν',
  xi: 'ξ',
  rho: 'ρ',
  sigma: 'σ',
  tau: 'τ',
  phi: 'φ',
  varphi: 'φ',
  chi: 'χ',
  psi: 'ψ',
  omega: 'ω',
  Delta: 'Δ',
  Omega: 'Ω',
}

const signs: Record<string, string> = {
  pi: 'π',
  cdot: '·',
  times: '·',
  ast: '·',
  div: '÷',
  le: '≤',
  leq: '≤',
  leqslant: '≤',
  lt: '<',
  ge: '≥',
  geq: '≥',
  geqslant: '≥',
  gt: '>',
  ne: '≠',
  neq: '≠',
  prime: '′',
  circ: '°',
  degree: '°',
  // Bars that say which side they stand on are read as such.
  lvert: 'abs(',
  rvert: ')',
  vert: '|',
  mid: '|',
  '{': '(',
  '}': ')',
  lbrace: '(',
  rbrace: ')',
  lfloor: 'floor(',
  rfloor: ')',
  lceil: 'ceil(',
  rceil: ')',
  land: ' and ',
  wedge: ' and ',
  lor: ' or ',
  vee: ' or ',
}

/** Commands such as \\sin: LaTeX has one for each name that it is typeset by. */
const functions = [...Object.keys(spellings), 'exp']
const spaces = [
  ...[',', ';', ':', '!', ' ', 'quad', 'qquad', 'left', 'right', 'middle', 'limits', 'nolimits'],
  ...['big', 'Big', 'bigg', 'Bigg', 'bigl', 'bigr', 'Bigl', 'Bigr', 'displaystyle', 'textstyle'],
  ...['(', ')', '[', ']'],
]
const upright = ['text', 'textrm', 'mathrm', 'mathit', 'operatorname', 'mbox', 'textit']

const meanings = new Map<string, LatexMeaning>([
  ...Object.entries({ ...letters, ...signs }).map(
    ([command, text]) => [command, { text }] as [string, LatexMeaning],
  ),
  ...functions.map((name): [string, LatexMeaning] => [name, { text: name }]),
  ...spaces.map((command): [string, LatexMeaning] => [command, { kind: 'nothing' }]),
  ...upright.map((command): [string, LatexMeaning] => [command, { kind: 'upright' }]),
  ...['frac', 'dfrac', 'tfrac', 'cfrac'].map((command): [string, LatexMeaning] => [
    command,
    { kind: 'fraction' },
  ]),
  ['sqrt', { kind: 'latexRoot' }],
  ['bmod', { text: 'mod' }],
])

export interface LatexCommand {
  command: string
  to: number
  meaning: LatexMeaning | null
}

/** The command that begins with the backslash at a position, and what it means, if anything. */
export function latexCommandAt(text: string, at: number): LatexCommand | null {
  const found = /^\\([A-Za-z]+|.)/su.exec(text.slice(at, at + 40))
  if (!found) return null
  const command = found[1]!
  return { command, to: at + found[0].length, meaning: meanings.get(command) ?? null }
}
