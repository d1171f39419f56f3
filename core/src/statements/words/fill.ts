import { toLatex } from '../../language/latex'
import { tellTree } from '../shared/toldNumbers'
import { unitOfDerivative, withUnit } from '../../vocabulary/units'
import type { LineContext } from '../contract'
import { readWords, type Run } from './read'

/** A piece of words as it stands now. */
export type FilledRun =
  { kind: 'text'; text: string; live?: true; wrong?: true } | { kind: 'maths'; latex: string }

export interface FilledWords {
  lines: readonly (readonly FilledRun[])[]
  /** The whole in plain characters, as it is spoken. */
  spoken: string
  problems: readonly { message: string; piece: string }[]
}

type WordsContext = Pick<LineContext, 'variable' | 'decimals' | 'number' | 'curve'>

/**
 * Words with their live values as they are now, rounded as the study rounds. The value of a curve, as
 * in `{q(a)}` or `{q'(a)}` alone, carries its unit where `units` is set. A value that cannot be had stands as it
 * was typed, and is told.
 */
export function fillWords(text: string, context: WordsContext, units = false): FilledWords {
  const { lines, problems: unread } = readWords(text)
  const problems = unread.map(({ message, from, to }) => ({ message, piece: text.slice(from, to) }))
  const value = (formula: string, named = units): { text: string } | { wrong: string } => {
    const found = context.number(formula)
    if (found.ok) {
      const shown = tellTree(found.tree, found.value, context, false).text
      return { text: named ? withUnit(shown, unitOf(formula, context)) : shown }
    }
    problems.push({ message: found.problem.message.replace(/^a place/, 'words'), piece: formula })
    return { wrong: formula }
  }
  const fill = (run: Run): FilledRun[] => {
    switch (run.kind) {
      case 'text':
        return [run]
      case 'live': {
        const now = value(run.formula)
        return 'text' in now
          ? [{ kind: 'text', text: now.text, live: true }]
          : [{ kind: 'text', text: `{${now.wrong}}`, wrong: true }]
      }
      case 'formula': {
        const found = context.curve(run.curve)
        if (found.ok) {
          const { letter } = context.variable
          return [
            { kind: 'maths', latex: `${run.curve}(${letter}) = ${toLatex(found.curve.tree)}` },
          ]
        }
        problems.push({ message: found.problem.message, piece: run.curve })
        return [{ kind: 'text', text: `{formula ${run.curve}}`, wrong: true }]
      }
      case 'maths': {
        const values = run.live.map(({ formula }) => value(formula, false))
        const latex = run.parts
          .map((part, i) => {
            const now = values[i]
            if (!now) return part
            return part + ('text' in now ? latexNumber(now.text) : `\\text{${now.wrong}}`)
          })
          .join('')
        return [{ kind: 'maths', latex }]
      }
    }
  }
  const filled = lines.map((line) => line.flatMap(fill))
  const spoken = filled
    .map((line) =>
      line.map((run) => (run.kind === 'text' ? run.text : plainMaths(run.latex))).join(''),
    )
    .join('. ')
  return { lines: filled, spoken: spoken.trim(), problems }
}

const latexNumber = (text: string) =>
  `{${text.replace(/−/g, '-').replace(/·10([⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+)/, (_, digits: string) => `\\cdot 10^{${plainDigits(digits)}}`)}}`
const plainDigits = (digits: string) =>
  [...digits].map((d) => (d === '⁻' ? '-' : String('⁰¹²³⁴⁵⁶⁷⁸⁹'.indexOf(d)))).join('')

/** The unit of a formula that is no more than a value of a curve or of a derivative of it. */
function unitOf(formula: string, { curve, variable }: WordsContext): string {
  const found = /^\s*([A-Za-zα-ωΑ-Ω][₀-₉]*)(['′]{0,3})\s*\(.*\)\s*$/u.exec(formula)
  const looked = found && curve(found[1]!)
  if (!looked?.ok) return ''
  return unitOfDerivative(looked.curve.unit, variable.unit, found![2]!.length)
}

/** Mathematics in words enough to be heard. */
export const plainMaths = (latex: string) =>
  latex
    .replace(/\\(?:d|t)?frac\s*\{([^{}]*)\}\s*\{([^{}]*)\}/g, '($1)/($2)')
    .replace(/\\(?:left|right|displaystyle|textstyle|quad|qquad|,|;|!)/g, ' ')
    .replace(/\\text(?:bf|it)?\s*\{([^{}]*)\}/g, '$1')
    .replace(/\\(?:begin|end)\s*\{[^{}]*\}/g, ' ')
    .replace(/\\\\/g, '; ')
    .replace(/\\([A-Za-z]+)/g, (_, name: string) => spokenCommands[name] ?? name)
    .replace(/[{}&]/g, '')
    .replace(/-/g, '−')
    .replace(/\s+/g, ' ')
    .trim()
const spokenCommands: Readonly<Record<string, string>> = {
  ...{ cdot: '·', times: '×', le: '≤', leq: '≤', ge: '≥', geq: '≥', ne: '≠', neq: '≠', pm: '±' },
  ...{ pi: 'π', infty: '∞', approx: '≈', to: '→', prime: '′', int: '∫', sum: '∑', sqrt: '√' },
}
