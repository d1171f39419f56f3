import { presentFormat, type Study, type StudyInput, studySchema } from '@yperkine/core'

interface DemoStudy {
  study: Study
  hoursAgo: number
}

type Sketch = Pick<StudyInput, 'title' | 'about' | 'variable'> & Partial<StudyInput>

const demo = (hoursAgo: number, sketch: Sketch): DemoStudy => ({
  hoursAgo,
  study: studySchema.parse({
    format: presentFormat,
    decimals: 3,
    sliders: [],
    lines: [],
    lanes: [],
    frame: null,
    ...sketch,
  }),
})

const time = { letter: 't', name: 'time', unit: 'h' }
const lane = (curve: string, order: number) => ({
  kind: 'lane' as const,
  id: `lane${order + 1}`,
  curve,
  order,
  frame: null,
})

const inflow = {
  kind: 'curve' as const,
  id: 'line1',
  name: 'q',
  unit: 'ML/h',
  formula: '6 + 4 sin(0.9t) - 0.3t',
  span: { from: '0', to: '10' },
}

/** Strips with the sliders n and s. */
const area = (id: string, curve: string, from: string, to: string) => ({
  kind: 'area' as const,
  id,
  curve,
  order: 0,
  span: { from, to },
  count: 'n',
  rule: 'position' as const,
  position: 's',
  seed: 1,
  convergence: false,
  tolerance: '0.001',
})

const features = (
  id: string,
  curve: string,
  only: 'features' | 'turning points',
  from: string,
  to: string,
) => ({
  kind: 'features' as const,
  id,
  curve,
  order: 0,
  only,
  span: { from, to },
  ends: true,
  labels: true,
})

/** All from the Ostrel lagoon field station, which does not exist; every number is made up. */
export const demoStudies: DemoStudy[] = [
  demo(0.2, {
    title: 'The flood tide',
    about: 'Inflow through the channel: ride a tangent along it and watch the rate below',
    variable: time,
    sliders: [{ name: 'a', value: 4.2, from: 0, to: 10, step: 0.01, place: true }],
    lines: [
      inflow,
      { kind: 'rate', id: 'line2', curve: 'q', order: 1 },
      { kind: 'tangent', id: 'line3', curve: 'q', order: 0, place: 'a', extent: 'short' },
      { kind: 'value', id: 'line4', curve: 'q', order: 0, place: 'a' },
    ],
    lanes: [lane('q', 0), lane('q', 1)],
  }),
  demo(26, {
    title: 'A hidden ripple',
    about: 'Water level after the gate closes: what a wide view does not show near the start',
    variable: time,
    sliders: [{ name: 'a', value: 12, from: 0, to: 48, step: 0.1, place: true }],
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'w',
        unit: 'm',
        formula: '1.8 e^(-t/16) + 0.35 e^(-2t) sin(14t)',
        span: { from: '0', to: '48' },
      },
      { kind: 'tangent', id: 'line2', curve: 'w', order: 0, place: 'a', extent: 'short' },
    ],
    lanes: [lane('w', 0), lane('w', 1)],
  }),
  demo(30, {
    title: 'Boardwalk joins',
    about: 'Three pieces, one kink: where is there no slope?',
    variable: { letter: 'x', name: 'distance', unit: 'm' },
    sliders: [{ name: 'a', value: 3, from: 0, to: 16, step: 0.1, place: true }],
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'h',
        unit: 'm',
        formula:
          '0.4 + x/4 if x < 6; 2.8 - 0.15x if x < 10; 1.3 - 0.15(x-10) + 0.02(x-10)^2 otherwise',
        span: { from: '0', to: '16' },
      },
      { kind: 'rate', id: 'line2', curve: 'h', order: 1 },
      { kind: 'tangent', id: 'line3', curve: 'h', order: 0, place: 'a', extent: 'short' },
      { kind: 'value', id: 'line4', curve: 'h', order: 1, place: '6' },
    ],
    lanes: [lane('h', 0), lane('h', 1)],
  }),
  demo(74, {
    title: 'Warm mud',
    about: 'Temperature a hand below the surface: how much later is the high point than noon?',
    variable: time,
    sliders: [
      { name: 'a', value: 10, from: 0, to: 24, step: 0.1, place: true },
      { name: 'd', value: 0.6, from: 0, to: 2, step: 0.05, place: false },
    ],
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'm',
        unit: '°C',
        formula: '14 + 7 e^(-d) sin(pi (t - 8)/12 - d)',
        span: { from: '0', to: '24' },
      },
      { kind: 'rate', id: 'line2', curve: 'm', order: 1 },
      { kind: 'tangent', id: 'line3', curve: 'm', order: 0, place: 'a', extent: 'short' },
    ],
    lanes: [lane('m', 0), lane('m', 1)],
  }),
  demo(170, {
    title: 'The shortest cable',
    about: 'Length of a cable from the lamp to the channel edge, against where it meets the edge',
    variable: { letter: 'x', name: 'distance along the edge', unit: 'm' },
    sliders: [{ name: 'a', value: 4, from: 0, to: 12, step: 0.1, place: true }],
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'c',
        unit: 'm',
        formula: '√((x - 5)² + (2 + 0.3 sin x + 0.1x)²)',
        span: { from: '0', to: '12' },
      },
      { kind: 'tangent', id: 'line2', curve: 'c', order: 0, place: 'a', extent: 'whole' },
    ],
    lanes: [lane('c', 0), lane('c', 1)],
  }),
  demo(190, {
    title: 'Pump settings',
    about: 'Power drawn against the setting: two valleys of different depth',
    variable: { letter: 's', name: 'setting', unit: '' },
    sliders: [{ name: 'a', value: -1.5, from: -3, to: 3, step: 0.05, place: true }],
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'p',
        unit: 'kW',
        formula: '0.25s^4 - 1.4s^2 + 0.45s + 4',
        span: { from: '-3', to: '3' },
      },
      { kind: 'rate', id: 'line2', curve: 'p', order: 1 },
      { kind: 'tangent', id: 'line3', curve: 'p', order: 0, place: 'a', extent: 'short' },
    ],
    lanes: [lane('p', 0), lane('p', 1)],
  }),
  demo(2, {
    title: 'From secant to tangent',
    about: 'Let the second end of a secant close in on the first, and read what its slope tends to',
    variable: time,
    sliders: [
      { name: 'a', value: 2.5, from: 0, to: 10, step: 0.1, place: true },
      { name: 'h', value: 2, from: -2, to: 3, step: 0.01, place: false },
    ],
    lines: [
      inflow,
      {
        kind: 'secant',
        id: 'line2',
        curve: 'q',
        order: 0,
        from: 'a',
        to: 'a + h',
        closing: true,
      },
      { kind: 'tangent', id: 'line3', curve: 'q', order: 0, place: 'a', extent: 'short' },
    ],
    lanes: [lane('q', 0)],
  }),
  demo(3, {
    title: 'When does the inflow change by 2?',
    about: 'A rate is given and the times are asked for, with proof that there are no others',
    variable: time,
    lines: [
      inflow,
      {
        kind: 'where',
        id: 'line2',
        curve: 'q',
        order: 1,
        target: '2',
        span: { from: '0', to: '10' },
      },
      {
        kind: 'averageRate',
        id: 'line3',
        curve: 'q',
        order: 0,
        span: { from: '1', to: '4' },
      },
    ],
    lanes: [lane('q', 0), lane('q', 1)],
  }),
  demo(50, {
    title: 'Guess the rule',
    about: 'A table of the channel bed’s height, its quotients, and the formula they follow',
    variable: { letter: 'x', name: 'distance', unit: 'm' },
    sliders: [
      { name: 'a', value: 0.4, from: -2, to: 2, step: 0.1, place: false },
      { name: 'b', value: -1.2, from: -4, to: 4, step: 0.1, place: false },
      { name: 'c', value: 0.5, from: -3, to: 3, step: 0.1, place: false },
    ],
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'b₁',
        unit: 'm',
        formula: 'a x^2 + b x + c',
        span: { from: '-1', to: '5' },
      },
      {
        kind: 'table',
        id: 'line2',
        curve: 'b₁',
        order: 0,
        span: { from: '-1', to: '5' },
        step: '0.5',
        h: '0.001',
        columns: ['x', 'f(x)', 'f(x+h)', 'forward', 'central'],
      },
      { kind: 'fit', id: 'line3', curve: 'b₁', order: 0, column: 'central', shape: 'line' },
    ],
    lanes: [lane('b₁', 0), lane('b₁', 1)],
  }),
  demo(60, {
    title: 'The slope goes for a walk',
    about: 'A short tangent goes over the inflow in equal steps and leaves its slopes below',
    variable: time,
    sliders: [
      {
        name: 'a',
        value: 6,
        from: 0,
        to: 10,
        step: 0.1,
        place: true,
        motion: { moves: true, manner: 'in equal steps', pace: 8, stops: 40, rest: 0.25 },
      },
    ],
    lines: [
      inflow,
      {
        kind: 'tangent',
        id: 'line2',
        curve: 'q',
        order: 0,
        place: 'a',
        extent: 'short',
        trail: true,
      },
    ],
    lanes: [lane('q', 0), lane('q', 1)],
  }),
  demo(80, {
    title: 'Readings at the gauge',
    about: 'Water levels read at uneven times: rates between them, and a formula that fits',
    variable: time,
    lines: [
      {
        kind: 'readings',
        id: 'line1',
        name: 'w',
        unit: 'm',
        points: [
          [0, 1.42],
          [0.5, 1.61],
          [1.5, 1.88],
          [2, 1.93],
          [3, 1.84],
          [4.5, 1.49],
          [5, 1.38],
          [6.5, 1.21],
          [7, 1.24],
          [8, 1.41],
        ],
      },
      { kind: 'fit', id: 'line2', curve: 'w', order: 0, column: 'f(x)', shape: 'sine' },
      { ...area('line3', 'w', '0', '8'), count: '1', position: '0', rule: 'trapezoid' },
      {
        kind: 'table',
        id: 'line4',
        curve: 'w',
        order: 0,
        span: { from: '0', to: '8' },
        step: '0.5',
        h: '0.001',
        columns: ['x', 'f(x)', 'forward', 'backward', 'central'],
      },
    ],
    lanes: [lane('w', 0), lane('w', 1)],
  }),
  demo(1, {
    title: 'Water through the channel',
    about: 'Strips under the inflow: how much water comes in, over, short and exact',
    variable: time,
    sliders: [
      {
        name: 'n',
        value: 8,
        from: 1,
        to: 10_000,
        step: 1,
        place: false,
        scale: 'growing',
        motion: { moves: true, manner: 'once', pace: 12, stops: 20, rest: 0.5 },
      },
      { name: 's', value: 0, from: 0, to: 1, step: 0.01, place: false },
    ],
    lines: [inflow, area('line2', 'q', '1', '7')],
    lanes: [lane('q', 0)],
  }),
  demo(4, {
    title: 'Stored water',
    about: 'The accumulated flow and what its slope is: water in, water out, and how much there is',
    variable: time,
    sliders: [{ name: 'a', value: 6.5, from: 0, to: 12, step: 0.05, place: true }],
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'f',
        unit: 'ML/h',
        formula: '3 cos(0.7t) - 0.1t',
        span: { from: '0', to: '12' },
      },
      { kind: 'accumulate', id: 'line2', name: 'A', curve: 'f', order: 0, lower: '0' },
      { kind: 'value', id: 'line3', curve: 'A', order: 0, place: 'a' },
      { kind: 'tangent', id: 'line4', curve: 'A', order: 0, place: 'a', extent: 'short' },
      { kind: 'value', id: 'line5', curve: 'f', order: 0, place: 'a' },
    ],
    lanes: [lane('f', 0), { ...lane('A', 0), id: 'lane2' }],
  }),
  demo(5, {
    title: 'In and out',
    about: 'Inflow against outflow: the area between them, and the mean of one',
    variable: time,
    lines: [
      inflow,
      {
        kind: 'curve',
        id: 'line2',
        name: 'r',
        unit: 'ML/h',
        formula: '4.5 + 0.1t',
        span: { from: '0', to: '10' },
      },
      {
        kind: 'between',
        id: 'line3',
        curve: 'q',
        order: 0,
        target: 'r',
        span: { from: '0', to: '10' },
      },
      { kind: 'average', id: 'line4', curve: 'q', order: 0, span: { from: '0', to: '10' } },
    ],
    lanes: [{ ...lane('q', 0), overlays: [{ curve: 'r', order: 0 }] }],
  }),
  demo(6, {
    title: 'Highs and lows of the flood',
    about: 'Every feature of the inflow, why it is one, and what decides the highest and lowest',
    variable: time,
    lines: [
      inflow,
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
    lines: [inflow],
    lanes: [lane('q', 0), { ...lane('q', 1), covered: true }],
  }),
]
