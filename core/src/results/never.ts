import { compileTree } from '../evaluate/compile'
import { namesIn } from '../formula/tree'
import { neverOver, type RangeContext, readCondition } from '../statements/condition'
import type { CurveLookup } from '../statements/contract'
import { formatShort } from '../vocabulary/numbers'
import { withPowerOfTen } from '../vocabulary/values'
import type { Read, Reading } from './reading'

/** That a condition holds nowhere on the range of a slider, where that is proven. */
export function neverShown(when: string, read: Read, reading: Reading): string | null {
  const found = readCondition(when)
  if (!found.ok) return null
  const slider = neverOver(found.condition, rangesOf(read, reading))
  if (slider === null) return null
  const { from, to } = rangeOf(slider, read)!
  return `never shown for ${slider} from ${formatShort(from, 9)} to ${formatShort(to, 9)}`
}

function rangeOf(slider: string, read: Read) {
  const [from, to] = [
    read<number | undefined>(`from:${slider}`),
    read<number | undefined>(`to:${slider}`),
  ]
  return from === undefined || to === undefined ? null : { from, to }
}

function rangesOf(read: Read, reading: Reading): RangeContext {
  const treeOf = (text: string) => {
    const parsed = reading.parse(withPowerOfTen(text))
    const expanded = parsed.ok ? reading.expand(parsed.tree) : null
    return expanded && !namesIn(expanded).has(read<string>('letter')) ? expanded : null
  }
  return {
    decimals: read<number>('decimals'),
    range: (slider) => rangeOf(slider, read),
    slidersOf: (text) => {
      const tree = treeOf(text)
      return tree && namesIn(tree)
    },
    along(text, slider) {
      const tree = treeOf(text)
      if (!tree) return null
      const others = [...namesIn(tree)].filter((name) => name !== slider)
      const values = others.map((name) => [name, read<number>(`slider:${name}`)] as const)
      return compileTree(tree, { variable: slider, parameters: Object.fromEntries(values) })
    },
    curve(letter) {
      const looked = read<CurveLookup>(`curve:${letter}`)
      return looked.ok && !looked.curve.readings ? looked.curve : null
    },
  }
}
