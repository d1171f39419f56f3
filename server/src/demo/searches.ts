import { type DemoStudy, demo, lane } from './sketch'

/** Looking for the best place step by step, series and families. */
export const searches: DemoStudy[] = [
  demo(22, {
    title: 'The cheapest pump setting',
    about: 'A search walks down into the valley it starts in; which one that is hangs on its start',
    variable: { letter: 's', name: 'setting', unit: '' },
    sliders: [{ name: 'c', value: 9.4, from: 0, to: 12, step: 0.1, place: true }],
    lines: [
      {
        kind: 'curve',
        id: 'line1',
        name: 'p',
        unit: 'kW',
        formula: '14 + 0.12(s - 5)^2 - 3 cos(1.6s + 0.4) + 0.2s',
        span: { from: '0', to: '12' },
      },
      {
        kind: 'search',
        id: 'line2',
        curve: 'p',
        order: 0,
        goal: 'low',
        methods: ['simplex'],
        start: 'c',
        kept: { span: { from: '0', to: '12' } },
        starts: 40,
      },
    ],
    lanes: [lane('p', 0)],
  }),
]
