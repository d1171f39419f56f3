import { type DemoStudy, demo, area, inflow, lane, time } from './sketch'

/** Strips, accumulated flow, areas between curves. */
export const areas: DemoStudy[] = [
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
]
