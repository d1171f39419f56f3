import fc from 'fast-check'
import { compile, parseFormula, readCsv, readingQuotients, tabulate, toCsv } from '..'

function read(text: string) {
  const parsed = parseFormula(text)
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message)
  return compile(parsed.tree)
}

test('a table of values, shifted values, quotients and derivatives', () => {
  const columns = [
    'x',
    'f(x)',
    'f(x+h)',
    'f(x-h)',
    'forward',
    'backward',
    'central',
    "f'(x)",
    "f''(x)",
  ] as const
  const { rows } = tabulate(read('x^3'), { from: 1, to: 2, step: 0.5, h: 0.1, columns })
  expect(rows).toHaveLength(3)
  // By hand at x = 1: 1.331, 0.729, 3.31, 2.71, 3.01, 3, 6.
  const expected = [1, 1, 1.331, 0.729, 3.31, 2.71, 3.01, 3, 6]
  rows[0]!.forEach((v, i) => expect(v).toBeCloseTo(expected[i]!, 12))
})
test('places read as they are written: 0.1 three times is 0.3', () => {
  const { rows } = tabulate(read('x'), { from: 0, to: 1, step: 0.1, h: 1, columns: ['x'] })
  expect(rows.map(([x]) => x)).toEqual([0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1])
})
test('outside the domain a cell is empty, and too many rows are refused', () => {
  const { columns, rows } = tabulate(read('ln x'), {
    from: -1,
    to: 1,
    step: 1,
    h: 1,
    columns: ['x', 'f(x)'],
  })
  // At the pole of 1/x neither side nor both have a quotient, though both sides have values.
  const pole = tabulate(read('1/x'), {
    from: 0,
    to: 0,
    step: 1,
    h: 0.1,
    columns: ['forward', 'backward', 'central'],
  })
  expect(pole.rows[0]).toEqual([NaN, NaN, NaN])
  expect(toCsv(columns, rows)).toBe('x,f(x)\r\n-1,\r\n0,\r\n1,0')
  // Words that a spreadsheet would run are marked as words; numbers are ones for any of them.
  expect(
    toCsv(['=x'], [['=1+1'], ['@sum'], ['+a'], ['-b'], ['\tc'], ['−1.25'], [-1e-7], [-0]]),
  ).toBe(
    ['"\'=x"', '"\'=1+1"', '"\'@sum"', '"\'+a"', '"\'-b"', '"\'\tc"', '-1.25', '-1e-7', '0'].join(
      '\r\n',
    ),
  )
  expect(toCsv(['kind', 'x'], [['high, at an end', 2 / 3]])).toBe(
    `kind,x\r\n"high, at an end",${2 / 3}`,
  )
  expect(() => tabulate(read('x'), { from: 0, to: 1, step: 1e-9, h: 1, columns: ['x'] })).toThrow(
    /100000 rows/,
  )
  expect(() => tabulate(read('x'), { from: 0, to: 1, step: -1, h: 1, columns: ['x'] })).toThrow(
    /lead away/,
  )
})

describe('CSV', () => {
  test('what is written reads back to the last digit', () => {
    const cell = fc.double({ noNaN: true, noDefaultInfinity: true })
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 20 }), (rows) => {
        const back = readCsv(toCsv(['t', 'q'], rows))
        expect(back.columns).toEqual(['t', 'q'])
        expect(back.problems).toEqual([])
        expect(back.rows).toEqual(rows.map((r) => r.map((v) => v + 0)))
      }),
      { numRuns: 200, seed: 51 },
    )
  })
  test.each([
    [
      't,q\n0,6\n1,9.1',
      [
        [0, 6],
        [1, 9.1],
      ],
    ],
    [
      't;q\n0;6\n1;9,1',
      [
        [0, 6],
        [1, 9.1],
      ],
    ],
    [
      '0\t6\n1\t9.1\n',
      [
        [0, 6],
        [1, 9.1],
      ],
    ],
    ['\uFEFF"t (h)","q, ML/h"\r\n0,−6\r\n', [[0, -6]]],
  ])('%j', (text, rows) => {
    expect(readCsv(text)).toMatchObject({ rows, problems: [] })
  })
  test('bad rows are left out and named with their line', () => {
    const { rows, problems } = readCsv('t,q\n0,6\n1,about 9\n2\n\n3,\n4,5')
    expect(rows).toEqual([
      [0, 6],
      [4, 5],
    ])
    expect(problems).toEqual([
      { line: 3, message: '“about 9” in q is no number' },
      { line: 4, message: '1 cell where the first row has 2' },
      { line: 6, message: 'an empty cell in q is no number' },
    ])
  })
})

test('quotients of readings at unequal widths', () => {
  expect(readingQuotients([0, 1, 3], [2, 4, 5])).toEqual([
    { forward: 2, backward: NaN, central: NaN },
    { forward: 0.5, backward: 2, central: 1 },
    { forward: NaN, backward: 0.5, central: NaN },
  ])
})

describe('which mark stands before decimals is told by the whole table', () => {
  const rowsOf = (text: string) => readCsv(text).rows
  test.each([
    [
      '0\t1,5\r\n0,5\t2,25\r\n',
      [
        [0, 1.5],
        [0.5, 2.25],
      ],
    ],
    [
      'q(0.5)\tr\n0\t1,5\n1\t2',
      [
        [0, 1.5],
        [1, 2],
      ],
    ],
    [
      '0\t1.000,5\n1\t12.000,25',
      [
        [0, 1000.5],
        [1, 12000.25],
      ],
    ],
    [
      '0\t1,000.5\n1\t1,200',
      [
        [0, 1000.5],
        [1, 1200],
      ],
    ],
    [
      '0,"1,000.5"\n1,−2',
      [
        [0, 1000.5],
        [1, -2],
      ],
    ],
    [
      '0;1.5\n1;2.5',
      [
        [0, 1.5],
        [1, 2.5],
      ],
    ],
  ])('%j', (text, rows) => {
    expect(readCsv(text).problems).toEqual([])
    expect(rowsOf(text)).toEqual(rows)
  })
  test('a cell that does not keep to it is told', () => {
    const { rows, problems } = readCsv('0\t1.5\n1\t2,5\n2\t3.5')
    expect(rows).toEqual([
      [0, 1.5],
      [2, 3.5],
    ])
    expect(problems).toEqual([{ line: 2, message: '“2,5” in column 2 is no number' }])
  })
})
