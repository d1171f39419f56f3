/**
 * Words with live values, as notes and captions hold them. Outside mathematics `{q(a)}` is a live value,
 * `{{`, `}}` and `\$` are those signs; between `$` signs stands LaTeX, in which braces are LaTeX's own and
 * `\live{q(a)}` is a live value. `{formula q}` is the formula of a curve.
 */
export type Run =
  | { kind: 'text'; text: string }
  /** A number, worked out anew whenever something in it moves. */
  | { kind: 'live'; formula: string; from: number }
  /** A curve's formula, typeset. */
  | { kind: 'formula'; curve: string; from: number }
  /** LaTeX with its live values cut out: `parts` has one text more than there are values. */
  | {
      kind: 'maths'
      parts: readonly string[]
      live: readonly { formula: string; from: number }[]
      from: number
    }

export interface WordsProblem {
  message: string
  from: number
  to: number
}

export interface ReadWords {
  /** Lines of runs, as they are broken in the text. */
  lines: readonly (readonly Run[])[]
  problems: readonly WordsProblem[]
}

const formulaOf = /^formula\s+(\S+)$/

/**
 * Reads words; never throws. What cannot be read is kept as plain text, and told with its place
 * (offsets are 0-based into the text).
 */
export function readWords(text: string): ReadWords {
  const problems: WordsProblem[] = []
  const lines: Run[][] = [[]]
  let plain = ''
  const flush = () => {
    if (plain !== '') lines.at(-1)!.push({ kind: 'text', text: plain })
    plain = ''
  }
  const add = (run: Run) => {
    flush()
    lines.at(-1)!.push(run)
  }
  let i = 0
  while (i < text.length) {
    const two = text.slice(i, i + 2)
    if (two === '{{' || two === '}}' || two === '\\$') {
      plain += two === '\\$' ? '$' : two[0]
      i += 2
    } else if (text[i] === '\n') {
      flush()
      lines.push([])
      i += 1
    } else if (text[i] === '{') {
      const end = text.indexOf('}', i)
      const inner = end < 0 ? '' : text.slice(i + 1, end)
      if (end < 0 || inner.trim() === '') {
        const to = end < 0 ? text.length : end + 1
        const message =
          end < 0
            ? 'this brace is never closed; write {{ for a brace'
            : 'a value is missing in these braces'
        problems.push({ message, from: i, to })
        plain += text.slice(i, to)
        i = to
      } else {
        const named = formulaOf.exec(inner.trim())
        if (named) add({ kind: 'formula', curve: named[1]!, from: i })
        else add({ kind: 'live', formula: inner, from: i + 1 })
        i = end + 1
      }
    } else if (text[i] === '}') {
      problems.push({
        message: 'this brace closes nothing; write }} for a brace',
        from: i,
        to: i + 1,
      })
      plain += '}'
      i += 1
    } else if (text[i] === '$') {
      const end = closingDollar(text, i + 1)
      if (end < 0) {
        problems.push({
          message: 'this $ is never closed; write \\$ for the sign',
          from: i,
          to: text.length,
        })
        plain += text.slice(i)
        i = text.length
      } else {
        const found = maths(text.slice(i + 1, end), i + 1)
        problems.push(...found.problems)
        if (found.run) add(found.run)
        else plain += text.slice(i, end + 1)
        i = end + 1
      }
    } else {
      plain += text[i]
      i += 1
    }
  }
  flush()
  return { lines, problems }
}

function closingDollar(text: string, from: number): number {
  for (let i = from; i < text.length; i++) {
    if (text[i] === '\\') i += 1
    else if (text[i] === '$') return i
  }
  return -1
}

/** What may stand in mathematics: the commands of school mathematics, and none that reach further. */
export const allowedCommands: ReadonlySet<string> = new Set(
  [
    'frac dfrac tfrac sqrt cdot times div pm mp le leq ge geq ne neq approx equiv sim propto infty to',
    'rightarrow Rightarrow leftarrow Leftarrow Leftrightarrow iff implies mapsto in notin subset cup cap',
    'sum prod int iint oint lim limits nolimits partial nabla prime circ degree angle triangle perp parallel',
    'sin cos tan sec csc cot arcsin arccos arctan sinh cosh tanh coth exp ln log min max sup inf det gcd mod',
    'alpha beta gamma delta epsilon varepsilon zeta eta theta vartheta iota kappa lambda mu nu xi pi rho',
    'sigma tau upsilon phi varphi chi psi omega Gamma Delta Theta Lambda Xi Pi Sigma Phi Psi Omega',
    'left right big Big bigl bigr Bigl Bigr langle rangle lvert rvert lVert rVert lfloor rfloor lceil rceil',
    'text textbf textit mathrm mathbf mathit mathbb mathcal operatorname overline underline hat bar vec dot',
    'ddot tilde overbrace underbrace binom begin end quad qquad dots ldots cdots vdots ddots mid forall exists',
    'displaystyle textstyle boxed cancel therefore because star ast bullet live',
  ]
    .join(' ')
    .split(' '),
)
export const allowedEnvironments: ReadonlySet<string> = new Set([
  'cases',
  'aligned',
  'matrix',
  'pmatrix',
  'bmatrix',
  'array',
])

function maths(latex: string, from: number): { run: Run | null; problems: WordsProblem[] } {
  const problems: WordsProblem[] = []
  for (const found of latex.matchAll(/\\([A-Za-z]+)/g)) {
    const [whole, name] = [found[0], found[1]!]
    if (allowedCommands.has(name)) continue
    const at = from + found.index
    problems.push({ message: `${whole} is not known here`, from: at, to: at + whole.length })
  }
  for (const found of latex.matchAll(/\\(?:begin|end)\s*\{([^}]*)\}/g)) {
    if (allowedEnvironments.has(found[1]!)) continue
    const at = from + found.index
    problems.push({ message: `${found[0]} is not known here`, from: at, to: at + found[0].length })
  }
  const parts: string[] = []
  const live: { formula: string; from: number }[] = []
  let start = 0
  for (const found of latex.matchAll(/\\live\s*\{([^{}]*)\}/g)) {
    parts.push(latex.slice(start, found.index))
    live.push({ formula: found[1]!, from: from + found.index + found[0].indexOf('{') + 1 })
    start = found.index + found[0].length
  }
  parts.push(latex.slice(start))
  if (latex.trim() === '')
    problems.push({
      message: 'nothing stands between these $ signs',
      from: from - 1,
      to: from + latex.length + 1,
    })
  return { run: problems.length > 0 ? null : { kind: 'maths', parts, live, from }, problems }
}

/** Words with every formula in them put through a change of names; the rest stays as it was typed. */
export function renameInWords(text: string, names: (formula: string) => string): string {
  const runs = readWords(text).lines.flat()
  const pieces: { from: number; text: string }[] = runs.flatMap((run) =>
    run.kind === 'live'
      ? [{ from: run.from, text: run.formula }]
      : run.kind === 'maths'
        ? run.live.map(({ from, formula }) => ({ from, text: formula }))
        : run.kind === 'formula'
          ? [{ from: text.indexOf(run.curve, run.from + '{formula'.length), text: run.curve }]
          : [],
  )
  let result = ''
  let at = 0
  for (const piece of pieces) {
    result += text.slice(at, piece.from) + names(piece.text)
    at = piece.from + piece.text.length
  }
  return result + text.slice(at)
}
