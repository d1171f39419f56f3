import fc from 'fast-check'
import { exportPicture, say, startStudy, type Study } from '../../index'
import { evaluatedThrough } from '../../scripting/evaluatedThrough'
import { latexMaths } from './maths'
import { latexName, latexText, latexWords } from './words'
import { latexWorking } from './working'

/** What TeX reads as more than a letter: a command, a group, mathematics, a comment. */
const plainly = (source: string) =>
  source
    // What this writer itself makes of a character.
    .replace(/\\ensuremath\{(?:[^{}]|\{[^{}]*\})*\}/g, '')
    .replace(/\\framebox\[0\.7em\]\{\\rule\{0pt\}\{0\.45em\}\}/g, '')
    .replace(/\{\\char34\}|\\[`'^~=u."rHvdc]\{(?:\\[ij]|[A-Za-z])\}/g, '')
    .replace(/\\(?:text[a-z]+|ldots|pounds|S|P|copyright|ss|ae|AE|oe|OE|o|O|l|L|i)\{\}/g, '')
    .replace(/\\[{}#$%&_, ]|[-,']\{\}/g, '')

describe('texts of people mean nothing but themselves', () => {
  // [typed, as LaTeX]; the commands are those of LaTeX 2e: L. Lamport, LaTeX, 1994, from memory.
  test.each([
    ['50 % of #1 & $x_1^2$', '50 \\% of \\#1 \\& \\$x\\_1\\textasciicircum{}2\\$'],
    ['\\input{/etc/passwd}', '\\textbackslash{}input\\{/etc/passwd\\}'],
    ['\\write18{rm}', '\\textbackslash{}write18\\{rm\\}'],
    ['Größe Å', 'Gr\\"{o}\\ss{}e \\r{A}'],
    ['−3.2·10⁻⁷', '\\ensuremath{-}3.2\\ensuremath{\\cdot}10\\ensuremath{^{-7}}'],
    ['q′′ ≈ π', "q\\ensuremath{''} \\ensuremath{\\approx} \\ensuremath{\\pi}"],
    ['a--b ``c', 'a-{}-{}b \\textasciigrave{}\\textasciigrave{}c'],
    ['<b>', '\\ensuremath{<}b\\ensuremath{>}'],
  ])('%s', (text, source) => {
    expect(latexWords(text)).toBe(source)
  })

  test('whatever is typed, no command, group or comment comes of it', () => {
    const nasty = fc.constantFrom(
      ...['\\', '{', '}', '%', '$', '&', '#', '^', '_', '~', '\\end{document}', '\\write18', '\n'],
      ...['😀', 'שלום', '\u202e', '\u0301', 'é', '−', '′', '¹', '\u0000', '"', "''", '--'],
    )
    fc.assert(
      fc.property(fc.array(fc.oneof(nasty, fc.string()), { maxLength: 20 }), (parts) => {
        const { source } = latexText(parts.join(''))
        expect(source).toMatch(/^[ -~]*$/)
        expect(plainly(source)).not.toMatch(/[\\{}%$&#^_~]/)
      }),
      { numRuns: 2000 },
    )
  })

  test('what has no sign there is an empty box, and told', () => {
    expect(latexText('raft 😀 ok').missing).toEqual(['😀'])
    expect(latexText('שלום').missing).toHaveLength(4)
    expect(latexText('Größe ≤ 5').missing).toEqual([])
  })

  test.each([
    ['q′', "\\ensuremath{q'}"],
    ['v_10', '\\ensuremath{v_{10}}'],
    ['b₁′', "\\ensuremath{b_{1}'}"],
    ['a + h', '\\ensuremath{a + h}'],
    ['−2', '\\ensuremath{-2}'],
  ])('the name %s', (name, source) => {
    expect(latexName(name).source).toBe(source)
  })
})

describe('mathematics of people', () => {
  test.each([
    ['\\frac{x}{2} + \\sqrt[3]{x}', '$\\frac{x}{2} + \\sqrt[3]{x}$'],
    ['\\frac12', '$\\frac{1}{2}$'],
    ['x^2_1', '$x^{2}_{1}$'],
    ['20\\degree', '$20{{}^{\\circ}}$'],
    ['\\left(x\\right)', '$\\left(x\\right)$'],
    ['\\text{50 % & more}', '$\\text{50 \\% \\& more}$'],
    ['\\begin{cases}x & y\\\\ 2 & z\\end{cases}', '$\\begin{cases}x & y\\\\{} 2 & z\\end{cases}$'],
  ])('%s', (latex, source) => {
    expect(latexMaths(latex).source).toBe(source)
  })

  // Each of these stops TeX, or reaches out of the formula.
  test.each([
    ['\\frac{1}', '\\frac{1'],
    ['x^2^3', 'x^'],
    ['{x', '}x'],
    ['\\input{secret}', '\\write18{ls}'],
    ['a & b', '\\left(x'],
    ['\\begin{cases}a & b & c\\end{cases}', '\\begin{array}{}a\\end{array}'],
    ['\\begin{aligned}x', '\\end{cases}'],
    ['$x$', '\\right)'],
    ['\\def\\x{1}', '\\catcode`\\%=12'],
  ])('what does not hold together is set as text: %s and %s', (...all) => {
    for (const latex of all) {
      const { source } = latexMaths(latex)
      expect(source.startsWith('$')).toBe(false)
      expect(plainly(source)).not.toMatch(/[\\{}%$&#^_~]/)
    }
  })

  test('whatever is typed, its groups and dollars are paired', () => {
    const piece = fc.constantFrom(
      ...['\\frac', '\\sqrt', '{', '}', '[', ']', '^', '_', '&', '\\\\', '$', '%', 'x', '1', ' '],
      ...[
        '\\left(',
        '\\right)',
        '\\text',
        '\\begin{cases}',
        '\\end{cases}',
        '\\degree',
        "'",
        '≤',
        '😀',
      ],
    )
    fc.assert(
      fc.property(fc.array(piece, { maxLength: 14 }), (parts) => {
        const { source } = latexMaths(parts.join(''))
        const bare = source.replace(/\\[\\{}$%#&_]/g, '')
        let [depth, lowest] = [0, 0]
        for (const c of bare) {
          depth += c === '{' ? 1 : c === '}' ? -1 : 0
          lowest = Math.min(lowest, depth)
        }
        expect([depth, lowest]).toEqual([0, 0])
        expect((bare.match(/\$/g) ?? []).length % 2).toBe(0)
        expect(bare).not.toContain('%')
      }),
      { numRuns: 3000 },
    )
  })
})

const saidAll = (start: string, ...words: string[]): Study =>
  words.reduce((study, one) => {
    const said = say(study, one)
    if ('problem' in said) throw new Error(`${one}: ${said.problem}`)
    return said.study
  }, startStudy(start))

describe('pictures and working', () => {
  const study = saidAll(
    'q(t) = 6 + 4 sin(0.9t) for 0 <= t <= 10',
    'tangent at 2',
    'area from 1 to 4',
  )

  test('a picture has its curve where it is, its labels and its places', () => {
    const source = exportPicture(study, { format: 'latex', width: 600, height: 300 })
    expect(source).toContain('\\documentclass')
    expect(source).toContain('\\ensuremath{q}')
    // The labels of the axis tell how heights go to places: 6, the value at the left end, is where q begins.
    const [, tick] = /at \(6,([\d.]+)\) \{6\}/.exec(source)!
    const [, start] = /\\path\[draw=ink[a-z]+,line width=2\.25bp[^\]]*\] \([\d.]+,([\d.]+)\)/.exec(
      source,
    )!
    expect(Number(start)).toBeCloseTo(Number(tick) + 4, 1)
    const opened = source.match(/\\begin\{(\w+)\}/g)!.length
    expect(source.match(/\\end\{(\w+)\}/g)!).toHaveLength(opened)
    // Nothing is further away than TeX can hold: 16383 points.
    for (const [, x] of source.matchAll(/\((-?[\d.]+),/g))
      expect(Math.abs(Number(x))).toBeLessThan(16000)
  })

  test('the same picture as SVG has its words as text', () => {
    const svg = exportPicture(study, { format: 'svg', width: 600, height: 300 })
    expect(svg).toMatch(/^<\?xml/)
    expect(svg).toContain('>q</text>')
    expect(() => exportPicture(study, { format: 'bmp' as 'svg' })).toThrow(RangeError)
    expect(() => exportPicture(study, { format: 'svg', width: NaN })).toThrow(RangeError)
  })

  test('the working has its sentences, results and tables', () => {
    const { source, missing } = latexWorking(evaluatedThrough(study), {
      ...{ answers: true, tables: true, picture: null },
    })
    expect(missing).toEqual([])
    expect(source).toContain('\\item Tangent to $q$ at $t = 2$')
    expect(source).toMatch(/slope & \\ensuremath\{-\}0\.818/)
    expect(source).toContain('\\begin{tabular}{@{}rrrrrrr@{}}')
    const without = latexWorking(evaluatedThrough(study), {
      ...{ answers: false, tables: true, picture: null },
    })
    expect(without.source).not.toContain('slope &')
  })

  test('a hostile title and note stay words', () => {
    const noted = {
      ...saidAll('f(x) = x^2', 'note 50% & #1 _x^ ~ <b> 😀'),
      title: '\\input{x} % $ }',
    }
    const source = exportPicture(noted, { format: 'latex' })
    expect(source.match(/\\end\{document\}/g)).toHaveLength(1)
    expect(source).not.toContain('\\input{')
    const lines = source.split('\n').filter((line) => !line.startsWith('%'))
    expect(lines.join('\n')).not.toMatch(/(?<!\\)%/)
  })
})
