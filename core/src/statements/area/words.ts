import { sayNumber } from '../../vocabulary/numbers'
import { withUnit } from '../../vocabulary/units'
import type { Shape, SumName, Tops, WhyFact } from './why'

const shapeWords: Record<Shape, string> = {
  rises: 'rises',
  falls: 'falls',
  concaveUp: 'is concave up',
  concaveDown: 'is concave down',
}

/** What the tops are called, and how they lie where they are over and where they are short. */
const topsWords: Record<Tops, readonly [name: string, over: string, short: string]> = {
  left: ['left heights', 'are too high', 'are too low'],
  right: ['right heights', 'are too high', 'are too low'],
  slanted: ['slanted tops', 'lie over it', 'lie under it'],
  middle: ['middle heights', 'come out over', 'come out short'],
}

const sumWords: Record<SumName, string> = {
  left: 'left sum',
  right: 'right sum',
  midpoint: 'midpoint sum',
  trapezoid: 'trapezoid sum',
  simpson: 'sum by parabolas',
  plain: 'sum',
}

const sizeText = (value: number, decimals: number) => sayNumber(value, decimals)

/** The reason in one sentence: "q falls from 2 to 5, so left heights are too high there." */
export function whyWords(
  fact: WhyFact,
  name: string,
  { decimals, unit }: { decimals: number; unit: string },
): string {
  switch (fact.kind) {
    case 'shape': {
      const [tops, over, short] = topsWords[fact.tops]
      const [from, to] = fact.on.map((x) => sayNumber(x, decimals))
      const [first, last] = fact.strips
      const strips = first === last ? `strip ${first}` : `strips ${first} to ${last}`
      const where = fact.whole ? 'throughout' : `from ${from} to ${to} (${strips})`
      return `${name} ${shapeWords[fact.shape]} ${where}, so ${tops} ${fact.over ? over : short} there.`
    }
    case 'more':
      return `And so on: ${fact.count} more stretches.`
    case 'undecided':
      return `No strip lies where the shape of ${name} decides it; with more strips some do.`
    case 'every': {
      const way = fact.over ? 'over' : 'short'
      return `So the ${sumWords[fact.sum]} is ${way}, since every strip is.`
    }
    case 'total': {
      const { over, short } = fact
      const size = (value: number) => withUnit(sizeText(value, decimals), unit)
      const shown = size(over) === size(short)
      return `The ${sumWords[fact.sum]} is ${over > short ? 'over' : 'short'}: its strips stand over by ${size(over)} in all and fall short by ${size(short)}${shown ? ', equal to the digits shown' : ''}.`
    }
    case 'cancels':
      return `What stands over and what falls short come to the same: the ${sumWords[fact.sum]} is the area.`
    case 'never':
      return fact.over
        ? 'Every strip stays at or below the curve, so the sum is never over.'
        : 'Every strip reaches the curve’s greatest value, so the sum is never short.'
  }
}
