import type { Tree } from '../../formula/tree'
import { readableFunctions } from '../../vocabulary/exactForms'
import { plainDecimal, tellNumber, type Told } from '../../vocabulary/told'

/** In running text ≈ says of a number that it is rounded. */
export const rounded = (text: string) => (text.startsWith('≈ ') ? text : `≈ ${text}`)

/** A told number in running text: as it is where that is short, with its digits behind a form, else rounded. */
export function numberSaid({ text, fraction, exact, certain }: Told, decimals: number): string {
  if (certain && fraction && plainDecimal(fraction, decimals) !== null) return text
  const form = exact?.proven ? exact.text : ''
  return form && form.length <= longestWord ? `${form} ≈ ${text}` : rounded(text)
}
const longestWord = 20

/** A number by its formula in running text. */
export const treeSaid = (tree: Tree, decimals: number): string =>
  numberSaid(tellNumber(tree, decimals, readableFunctions), decimals)

/** "t = 1.653", and "t ≈ 1.65" for what is rounded: never both signs. */
export const placeIs = (letter: string, place: string) =>
  place.startsWith('≈ ') ? `${letter} ${place}` : `${letter} = ${place}`

/** "a, b and c" */
export const listed = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)!}`

/** Of places that are all rounded the first alone carries ≈. */
export const oneSign = (places: readonly string[]) =>
  places.every((text) => text.startsWith('≈ '))
    ? places.map((text, i) => (i === 0 ? text : text.slice(2)))
    : places

/** Whether an output tells what is certain: ≈ behind a form, as in "√2 ≈ 1.414", only says its digits. */
export const isCertain = (text: string) => !/(?:^|\bat \S+ |, |and )≈ /.test(text)
