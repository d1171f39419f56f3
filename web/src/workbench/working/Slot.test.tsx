import { type Phrase, sentenceText } from '@yperkine/core'
import { act, fireEvent, screen } from '@testing-library/react'
import { flood, show } from '../../testing/page'
import { useStudy, useWorkbench } from '../store'
import { Slot } from './Slot'

/** The slots of the last line, as its sentence has them. */
function Slots() {
  const line = useStudy((s) => s.lines.at(-1)!)
  const phrases = useWorkbench((s) => s.evaluation.sentences.get(line.id)!)
  return (
    <p aria-label={sentenceText(phrases)}>
      {phrases.map((phrase: Phrase, i) =>
        'slot' in phrase ? <Slot key={i} line={line} phrase={phrase} /> : phrase.text,
      )}
    </p>
  )
}
const tangent = () => show(flood('tangent at 2'), () => <Slots />)

test('a slot is a button named by what it holds, and opens a field with what was typed', async () => {
  const { user } = await tangent()
  await user.click(screen.getByRole('button', { name: 't = 2' }))
  const field = screen.getByRole('textbox', { name: 'Place' })
  expect(field).toHaveProperty('value', '2')
  expect(document.activeElement).toBe(field)
})

test('Enter puts what was typed into the sentence', async () => {
  const { user, now } = await tangent()
  await user.click(screen.getByRole('button', { name: 't = 2' }))
  await user.keyboard('3.5{Enter}')
  expect(now().lines.at(-1)).toMatchObject({ kind: 'tangent', place: '3.5' })
  expect(screen.queryByRole('textbox')).toBeNull()
  expect(screen.getByRole('button', { name: 't = 3.5' })).toBeTruthy()
})

test('Escape leaves everything as it was', async () => {
  const { user, now } = await tangent()
  const before = now()
  await user.click(screen.getByRole('button', { name: 't = 2' }))
  await user.keyboard('9{Escape}')
  expect(now()).toBe(before)
})

test('what the slot cannot take is told beside the field, and nothing is lost', async () => {
  const { user, now } = await tangent()
  await user.click(screen.getByRole('button', { name: 't = 2' }))
  await user.keyboard('2+{Enter}')
  expect(screen.getByRole('alert').textContent).toMatch(/something is missing/)
  expect(screen.getByRole('textbox')).toHaveProperty('value', '2+')
  expect(now().lines.at(-1)).toMatchObject({ place: '2' })
  // Left as it is, the sentence keeps its last good place.
  await act(async () => fireEvent.blur(screen.getByRole('textbox')))
  expect(screen.getByRole('button', { name: 't = 2' })).toBeTruthy()
})

test('a choice is a list, and choosing is an edit', async () => {
  const { user, now } = await show(flood('area 0 to 4'), () => <Slots />)
  const list = screen.getAllByRole('combobox')[0]!
  const other = [...list.querySelectorAll('option')].find((o) => /right/.test(o.textContent))!
  await user.selectOptions(list, other)
  expect(list).toHaveProperty('value', other.value)
  const { position } = now().lines.at(-1) as { position?: string }
  expect(now().sliders.find((s) => s.name === position)?.value).toBe(1)
})
