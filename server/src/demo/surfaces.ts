import { type DemoStudy, demo, lane } from './sketch'

const side = (half: string) => ({ from: `-${half}`, to: half })

/** A dune as a surface: its tangent plane, its sections and its top. */
export const surfaces: DemoStudy[] = [
  demo(12, {
    title: 'A plane on the dune',
    about: 'The dune as a surface: drag the point, and its tangent plane and both sections follow',
    variable: { letter: 'x', name: 'along the shore', unit: 'm' },
    sliders: [
      { name: 'a', value: 1.5, from: -6, to: 6, step: 0.1, place: true },
      { name: 'b', value: -1.2, from: -5, to: 5, step: 0.1, place: false },
    ],
    lines: [
      {
        kind: 'surface',
        id: 'line1',
        surface: 'z',
        first: 'x',
        second: 'y',
        formula: '4 e^(-x²/8 - y²/5) + 0.3 sin x',
        firstSpan: side('6'),
        secondSpan: side('5'),
      },
      { kind: 'plane', id: 'line2', of: 'z', x: 'a', y: 'b', near: '0.5' },
      {
        kind: 'section',
        id: 'line3',
        name: 's',
        of: 'z',
        held: 'second',
        at: 'b',
        place: 'a',
        span: side('6'),
      },
      { kind: 'critical', id: 'line4', of: 'z' },
    ],
    lanes: [lane('s', 0), lane('s', 1)],
  }),
]
