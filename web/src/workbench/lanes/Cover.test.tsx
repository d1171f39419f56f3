import { changeLane, laneTitle, type Scene, type Study, toggleLane } from '@yperkine/core'
import { act, fireEvent, screen } from '@testing-library/react'
import { flood, show } from '../../testing/page'
import { Cover } from './Cover'

/** The flood with its rate in a lane that is covered. */
function covered(): Study {
  const study = toggleLane('q', 1)(flood())
  const { id } = study.lanes.find((l) => l.order === 1)!
  return changeLane(id, { covered: true })(study)
}
const open = () =>
  show(covered(), (study) => {
    const lane = study.lanes.find((l) => l.order === 1)!
    return <Cover lane={{ ...lane, title: laneTitle(lane) }} />
  })

/** A pointer over a value of the axis, so many pixels below the top of the lane. */
const pointerOn =
  ({ x: [from, to] }: Pick<Scene, 'x'>) =>
  (value: number, pixel: number) => ({
    clientX: ((value - from) / (to - from)) * 800,
    clientY: pixel,
    pointerId: 1,
    button: 0,
  })

test('a covered lane asks for a guess, and uncovering is said', async () => {
  const { store, user, now } = await open()
  await user.click(screen.getByRole('button', { name: 'Uncover q′' }))
  expect(now().lanes.find((l) => l.order === 1)!.covered).toBe(false)
  expect(store.getState().announcement).toBe('q′ uncovered')
  expect(screen.queryByRole('button', { name: 'Uncover q′' })).toBeNull()
})

test('what is drawn is kept in its own coordinates; going back draws anew; undo takes it away', async () => {
  const { store, now } = await open()
  const { scene } = store.getState()
  const { id, y } = scene.lanes.find((l) => l.order === 1)!
  const sheet = screen.getByText(/draw what you expect/).closest('.touch-none')!
  const at = pointerOn(scene)
  await act(async () => {
    fireEvent.pointerDown(sheet, at(1, 150))
    for (const x of [2, 3, 4]) fireEvent.pointerMove(sheet, at(x, 150))
    fireEvent.pointerMove(sheet, at(2.5, 0))
    fireEvent.pointerUp(sheet, at(2.5, 0))
  })
  const guess = now().answers.guesses[id]!
  expect(guess.map(([x]) => x)).toEqual([1, 2, 2.5].map((x) => expect.closeTo(x, 9)))
  // The middle of the lane and its top.
  expect(guess[0]![1]).toBeCloseTo((y[0] + y[1]) / 2, 9)
  expect(guess[2]![1]).toBeCloseTo(y[1], 9)
  await act(async () => store.getState().undo())
  expect(now().answers.guesses[id]).toBeUndefined()
})

test('a guess is compared when the lane is uncovered', async () => {
  const { store, user } = await open()
  const { scene } = store.getState()
  const sheet = screen.getByText(/draw what you expect/).closest('.touch-none')!
  const at = pointerOn(scene)
  await act(async () => {
    fireEvent.pointerDown(sheet, at(0, 140))
    for (let x = 1; x <= 10; x++) fireEvent.pointerMove(sheet, at(x, 140))
    fireEvent.pointerUp(sheet, at(10, 140))
  })
  await user.click(screen.getByRole('button', { name: 'Uncover q′' }))
  expect(document.body.textContent).toMatch(/sign|off|guess/i)
})
