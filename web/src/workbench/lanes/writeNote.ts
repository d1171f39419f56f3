import type { Item } from '@yperkine/core'

type Lines = (Item & { kind: 'note' })['lines']
type Run = Lines[number][number]

type Typeset = (latex: string) => string
let typeset: Typeset | null = null

/** Formulas are set by a package that comes when the first note with one is written. */
const loadTypeset = async () => {
  const { default: katex } = await import('katex')
  typeset = (latex) =>
    katex.renderToString(latex, {
      ...{ throwOnError: false, output: 'html', strict: false },
      // What is typed into a note may come from anyone.
      ...{ trust: false, maxExpand: 100, maxSize: 20 },
    })
}

const sameShape = (a: Lines, b: Lines) =>
  a.length === b.length &&
  a.every(
    (line, i) =>
      line.length === b[i]!.length && line.every((run, j) => run.kind === b[i]![j]!.kind),
  )

/**
 * Writes the words of a note into its element; where only values have changed, only they are written:
 * this happens at every frame of a movement.
 */
export function writeNote(element: HTMLElement, lines: Lines, before: Lines | null) {
  const kept = before && sameShape(lines, before) ? before : null
  if (!kept) {
    element.replaceChildren(
      ...lines.map((line) => {
        const row = document.createElement('div')
        row.replaceChildren(...line.map(() => document.createElement('span')))
        if (line.length === 0) row.textContent = ' '
        return row
      }),
    )
  }
  lines.forEach((line, i) =>
    line.forEach((run, j) => {
      const old = kept?.[i]?.[j]
      const cell = element.children[i]!.children[j] as HTMLElement
      if (old && sameRun(old, run)) return
      writeRun(cell, run)
    }),
  )
}

const sameRun = (a: Run, b: Run) =>
  a.kind === 'text' && b.kind === 'text'
    ? a.text === b.text && a.wrong === b.wrong
    : a.kind === 'maths' && b.kind === 'maths' && a.latex === b.latex

function writeRun(cell: HTMLElement, run: Run) {
  if (run.kind === 'text') {
    cell.textContent = run.text
    cell.className = run.wrong ? 'formula-problem' : run.live ? 'font-semibold tabular-nums' : ''
    cell.toggleAttribute('data-figures', run.live === true)
    return
  }
  cell.className = ''
  if (typeset) {
    cell.innerHTML = typeset(run.latex)
    return
  }
  cell.dataset.latex = run.latex
  void loadTypeset().then(() => {
    const { latex } = cell.dataset
    if (latex !== undefined) cell.innerHTML = typeset!(latex)
    delete cell.dataset.latex
  })
}
