import { act, fireEvent, screen } from '@testing-library/react'
import { flood, show } from '../../testing/page'
import { Ruler } from './Ruler'

const open = (...words: string[]) => show(flood(...words), () => <Ruler />)

/** The pixel of a value on the ruler, which begins at the left edge of this page. */
const pixelOf = (x: readonly [number, number], value: number) =>
  ((value - x[0]) / (x[1] - x[0])) * 800

test('a place has a flag that says where it stands and moves by keys in its steps', async () => {
  const { user, now } = await open('tangent')
  const flag = screen.getByRole('slider', { name: 'Place a' })
  const before = now().sliders[0]!
  expect(Number(flag.getAttribute('aria-valuenow'))).toBe(before.value)
  expect(flag.getAttribute('aria-valuetext')).toContain('t = ')
  flag.focus()
  await user.keyboard('{ArrowRight}')
  expect(now().sliders[0]!.value).toBeCloseTo(before.value + before.step, 12)
  await user.keyboard('{End}')
  expect(now().sliders[0]!.value).toBe(before.to)
  expect(Number(flag.getAttribute('aria-valuenow'))).toBe(before.to)
})

test('dragging a flag moves its slider to what is under the pointer, as one edit to undo', async () => {
  const { store, now } = await open('tangent')
  const flag = screen.getByRole('slider', { name: 'Place a' })
  const { x } = store.getState().scene
  const before = now().sliders[0]!.value
  const at = (value: number) => ({ clientX: pixelOf(x, value), pointerId: 1, button: 0 })
  await act(async () => {
    fireEvent.pointerDown(flag, at(before))
    for (const value of [5, 6, 7]) fireEvent.pointerMove(flag, at(value))
    fireEvent.pointerUp(flag, at(7))
  })
  expect(now().sliders[0]!.value).toBeCloseTo(7, 6)
  await act(async () => store.getState().undo())
  expect(now().sliders[0]!.value).toBe(before)
})

test('a typed place follows the pointer and is rewritten in its line', async () => {
  const { store, now } = await open('tangent at 2')
  const flag = screen.getByRole('slider', { name: 'Place t = 2' })
  const { x } = store.getState().scene
  const at = (value: number) => ({ clientX: pixelOf(x, value), pointerId: 1, button: 0 })
  await act(async () => {
    fireEvent.pointerDown(flag, at(2))
    for (const value of [2.5, 3, 3.5]) fireEvent.pointerMove(flag, at(value))
    fireEvent.pointerUp(flag, at(3.5))
  })
  expect(now().lines.at(-1)).toMatchObject({ place: '3.5' })
})

test('an exact value is typed after Enter, and what is no number is told', async () => {
  const { user, now } = await open('tangent')
  screen.getByRole('slider', { name: 'Place a' }).focus()
  await user.keyboard('{Enter}')
  await user.keyboard('x{Enter}')
  expect(screen.getByRole('alert').textContent).toMatch(/x/)
  await user.clear(screen.getByRole('textbox', { name: 'a exactly' }))
  await user.keyboard('pi{Enter}')
  expect(now().sliders[0]!.value).toBeCloseTo(Math.PI, 12)
})

test('a click on the empty ruler puts a place there', async () => {
  const { store, now } = await open()
  const strip = screen.getByTitle(/Click to put a place here/)
  const { x } = store.getState().scene
  const at = { clientX: pixelOf(x, 4), clientY: 10, pointerId: 1, button: 0 }
  await act(async () => {
    fireEvent.pointerDown(strip, at)
    fireEvent.pointerUp(strip, at)
  })
  expect(now().sliders).toHaveLength(1)
  expect(now().sliders[0]!.value).toBeCloseTo(4, 1)
  expect(screen.getByRole('slider', { name: 'Place a' })).toBeTruthy()
})
