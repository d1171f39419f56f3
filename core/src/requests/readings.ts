import { readingsLine } from '../statements/readings'
import { freshName, symbolProblem } from '../study/edits/names'
import type { Edit } from '../study/edits/edit'
import { changeVariable } from '../study/edits/study'
import type { Study } from '../study/schema'
import { type Heading, readHeading } from './headings'
import { addLine } from './offers'

/**
 * Adds readings as a curve that is called as the headings of their columns say: by their letter, else
 * by the first letter of their word, where nothing else has it. The unit comes along, the word
 * becomes the label, and a variable without a name or unit takes those of the places.
 */
export function addReadings(
  study: Study,
  points: readonly [number, number][],
  headings: { x: string; y: string } | null,
): { name: string; edit: Edit } {
  const none: Heading = { letter: '', name: '', unit: '' }
  const x = headings ? readHeading(headings.x) : none
  const y = headings ? readHeading(headings.y, x.letter || study.variable.letter) : none
  const { variable } = study
  const isFree = (name: string) => name !== '' && symbolProblem(study, '', name) === null
  const first = y.name.slice(0, 1).toLowerCase()
  const name = [y.letter, first].find(isFree) ?? freshName(study, 'w')
  const word = x.name || (x.letter === variable.letter ? '' : x.letter)
  const line = {
    ...readingsLine(name, points),
    unit: y.unit.slice(0, 30),
    ...(y.name === '' ? {} : { look: { label: y.name.slice(0, 80) } }),
  }
  const named = {
    ...(variable.name === '' && word !== '' ? { name: word.slice(0, 40) } : {}),
    ...(variable.unit === '' && x.unit !== '' ? { unit: x.unit.slice(0, 30) } : {}),
  }
  return { name, edit: (now) => addLine(line)(changeVariable(named)(now)) }
}
