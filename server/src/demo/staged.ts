import { area, type DemoStudy, demo, flow, lane, time } from './sketch'

const part = (id: string, letter: string, title: string, onDeck = true) => ({
  ...{ id, letter, title, onDeck },
})

const note = (id: string, curve: string, text: string, more: object = {}) => ({
  ...{ kind: 'note' as const, id, text, curve, order: 0, pin: 'auto' as const, x: 0, y: 0 },
  ...{ size: 'usual' as const },
  ...more,
})

/** Pictures with bodies, words and switches on them. */
export const staged: DemoStudy[] = [
  demo(0.5, {
    title: 'A raft on the swell',
    about: 'A raft rides over the swell to the reef: where it goes down, and how fast',
    variable: { letter: 'x', name: 'distance from the buoy', unit: 'm' },
    display: {
      ...{ look: 'paper', grid: true, axes: true, title: true, ticks: 'numbers' },
      ...{ notation: 'primes', keys: true },
    },
    sliders: [
      {
        ...{ name: 'a', value: 3.3, from: 0, to: 14, step: 0.01, place: true },
        motion: { moves: true, manner: 'round again', pace: 12, stops: 20, rest: 0.5 },
      },
    ],
    parts: [part('part1', 'A', 'The raft', false), part('part2', 'B', 'Where it goes down')],
    lines: [
      {
        kind: 'curve',
        ...{ id: 'line1', part: 'part1', name: 'w', unit: 'm' },
        formula:
          '1.2 + 0.5 sin(0.8x) if x < 6; 1.2 + 0.5 sin(4.8) + 0.4 cos(4.8)(x - 6) + 0.06(x - 6)^2 if 6 <= x < 10; 2.16 + 0.5 sin(4.8) + 1.6 cos(4.8) - 0.22(x - 10) otherwise',
        span: { from: '0', to: '14' },
      },
      {
        kind: 'marker',
        ...{ id: 'line2', part: 'part1', curve: 'w', order: 0, place: 'a', y: null },
        ...{ shape: 'raft', caption: '{w(a)} m', turned: true, mirrored: true, grid: null },
      },
      {
        kind: 'rate',
        ...{ id: 'line3', part: 'part2', curve: 'w', order: 1 },
        look: { colour: 'plum', dash: 'dotted' },
      },
      {
        kind: 'tangent',
        ...{ id: 'line4', part: 'part2', curve: 'w', order: 0, place: 'a', extent: 'short' },
      },
      note('line5', 'w', "Going down:\nw′ = {w'(a)}", {
        part: 'part2',
        when: 'w falls at a and part B[part2]',
      }),
      {
        kind: 'trail',
        ...{ id: 'line6', part: 'part2', curve: 'w', order: 0, place: 'a', style: 'broad' },
        when: 'w falls at a',
      },
    ],
    lanes: [lane('w', 0), lane('w', 1)],
  }),
  demo(0.8, {
    title: 'Three ways to the same water',
    about: 'A story in three parts: the flow, its strips, and what has come together so far',
    variable: time,
    sliders: [
      {
        ...{ name: 'a', value: 5.5, from: 0, to: 10, step: 0.05, place: true },
        motion: { moves: true, manner: 'once', pace: 12, stops: 20, rest: 0.5 },
      },
      { name: 'n', value: 10, from: 1, to: 50, step: 1, place: false },
      { name: 's', value: 0.5, from: 0, to: 1, step: 0.01, place: false },
    ],
    parts: [
      part('part1', 'A', 'The flow'),
      part('part2', 'B', 'Strips'),
      part('part3', 'C', 'What has come together'),
    ],
    lines: [
      { ...flow('f', 'ML/h', '1 + 4 sin(0.6t)', '10'), part: 'part1' },
      {
        kind: 'value',
        ...{ id: 'line2', part: 'part1', curve: 'f', order: 0, place: 'a' },
      },
      { ...area('line3', 'f', '0', 'a'), part: 'part2' },
      {
        kind: 'accumulate',
        ...{ id: 'line4', part: 'part3', name: 'A', curve: 'f', order: 0, lower: '0' },
      },
      {
        kind: 'marker',
        ...{ id: 'line5', part: 'part3', curve: 'A', order: 0, place: 'a', y: null },
        ...{ shape: 'droplet', caption: '{A(a)} ML', turned: false, mirrored: false, grid: null },
      },
      note('line6', 'A', 'The flow is {f(a)}: more comes in, and A rises.', {
        part: 'part3',
        when: 'f(a) > 0',
      }),
      note('line7', 'A', 'The flow is {f(a)}: it runs out again, and A falls.', {
        part: 'part3',
        when: 'f(a) < 0',
      }),
    ],
    lanes: [lane('f', 0), { ...lane('A', 0), id: 'lane2' }],
  }),
]
