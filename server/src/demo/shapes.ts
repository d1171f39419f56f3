import { type DemoStudy, demo, features, flow, lane, time } from './sketch'

/** Highs and lows, what a derivative tells, distances, guesses. */
export const shapes: DemoStudy[] = [
  demo(6, {
    title: 'Highs and lows of the flood',
    about: 'Every feature of the inflow, why it is one, and what decides the highest and lowest',
    variable: time,
    lines: [
      flow('q', 'ML/h', '7 - 0.02(t - 5)^3 + 2 sin(1.4t)', '10'),
      features('line2', 'q', 'turning points', '0', '10'),
      {
        kind: 'signs',
        id: 'line3',
        curve: 'q',
        order: 0,
        span: { from: '0', to: '10' },
        speed: false,
      },
    ],
    lanes: [lane('q', 0), lane('q', 1)],
  }),
  demo(7, {
    title: 'Only the second derivative is given',
    about: 'A graph of f′′ on a closed span: what follows about f and f′, each with its reason',
    variable: { letter: 'x', name: 'distance', unit: 'm' },
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'g',
        unit: '',
        formula: '2 sin(x) - x/3 + 0.4',
        span: { from: '0', to: '7' },
      },
      features('line2', 'g', 'features', '0', '7'),
      {
        kind: 'conclude',
        id: 'line3',
        curve: 'g',
        order: 0,
        taken: "f''",
        about: "f'",
        span: { from: '0', to: '7' },
      },
    ],
    lanes: [lane('g', 0)],
  }),
  demo(8, {
    title: 'Lamp to channel edge',
    about: 'A cable from the lamp to a point that walks along the edge: its length, and the least',
    variable: { letter: 'x', name: 'distance along the edge', unit: 'm' },
    sliders: [{ name: 'a', value: 8, from: 0, to: 12, step: 0.05, place: true }],
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'k',
        unit: 'm',
        formula: '1 + 0.3 sin(x) + 0.1x',
        span: { from: '0', to: '12' },
      },
      {
        kind: 'distance',
        id: 'line2',
        name: 'L',
        curve: 'k',
        order: 0,
        place: 'a',
        x: '5',
        y: '3',
      },
    ],
    lanes: [lane('k', 0), { ...lane('L', 0), id: 'lane2' }],
  }),
  demo(9, {
    title: 'Guess the rate first',
    about: 'The lane of the derivative is covered: draw it, then uncover and compare',
    variable: time,
    lines: [flow('d', 'm', '2 + sin(t) - 0.5 cos(2t)', '8')],
    lanes: [lane('d', 0), { ...lane('d', 1), covered: true }],
  }),
]
