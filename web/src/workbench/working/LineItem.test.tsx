import { changeFormula, sentenceText } from '@yperkine/core'
import { act, screen, within } from '@testing-library/react'
import { flood, show } from '../../testing/page'
import { useStudy } from '../store'
import { LineItem } from './LineItem'

function Lines() {
  const lines = useStudy((s) => s.lines)
  return (
    <ol>
      {lines.map((line, i) => (
        <LineItem key={line.id} line={line} number={i + 1} />
      ))}
    </ol>
  )
}
const open = (...words: string[]) => show(flood(...words), () => <Lines />)

test('a line is called by its sentence and speaks its readouts', async () => {
  const { store } = await open('tangent at 2')
  const sentence = sentenceText(store.getState().evaluation.sentences.get('line2')!)
  const line = screen.getByRole('listitem', { name: sentence })
  // q′(2) = 3.6 cos 1.8 − 0.3, worked out by hand.
  const slope = 3.6 * Math.cos(1.8) - 0.3
  expect(line.textContent).toContain(slope.toFixed(3).replace('-', '−'))
})

test('a formula that cannot be read says where, keeps what was typed, and is mended in one press', async () => {
  const { store, user, now } = await open()
  await act(async () => store.getState().apply(changeFormula('line1', '6 + 4 sim(t)')))
  const line = screen.getByRole('listitem')
  expect(within(line).getByRole('alert').textContent).toMatch(/nothing is called “sim”/)
  expect(line.querySelector('.formula-problem')?.textContent).toBe('sim')
  await user.click(within(line).getByRole('button', { name: 'Use sin' }))
  expect(now().lines[0]).toMatchObject({ formula: '6 + 4 sin(t)' })
  expect(screen.queryByRole('alert')).toBeNull()
})

test('a letter without a value is given one in one press', async () => {
  const { store, user, now } = await open()
  await act(async () => store.getState().apply(changeFormula('line1', '6 + k t')))
  await user.click(screen.getByRole('button', { name: 'Give a value to k' }))
  expect(now().sliders.map((s) => s.name)).toEqual(['k'])
  expect(screen.queryByRole('alert')).toBeNull()
})

test('removing a line takes it away, says so, and can be undone', async () => {
  const { store, user } = await open('tangent at 2')
  await user.click(screen.getByRole('button', { name: 'Remove line 2' }))
  expect(screen.getAllByRole('listitem')).toHaveLength(1)
  expect(store.getState().announcement).toBe('Line removed')
  await act(async () => store.getState().undo())
  expect(screen.getAllByRole('listitem').length).toBeGreaterThan(1)
})
