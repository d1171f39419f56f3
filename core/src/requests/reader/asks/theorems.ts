import { curveText } from '../../../statements/shared/slots'
import { type Ask, over } from './ask'

/** Theorems and tests. */
export const theoremsAsks: readonly Ask[] = [
  ...(
    [
      ['mean value theorem', 'mean value theorem, mvt, mean-value theorem'],
      ["rolle's theorem", "rolle's theorem, rolles theorem, rolle, rolle's"],
      ['intermediate value theorem', 'intermediate value theorem, ivt'],
      ['extreme value theorem', 'extreme value theorem, evt'],
      ['fundamental theorem', 'fundamental theorem, ftc, fundamental theorem calculus'],
      ['first derivative test', 'first derivative test, first-derivative test, derivative test'],
      ['second derivative test', 'second derivative test, second-derivative test'],
    ] as const
  ).map(([theorem, said]): Ask => ({
    said,
    also: `
      theorem, apply, applies, hold, holds, use, verify, check, satisfies, satisfy, c, find,
      conclusion, hypotheses, conditions, guarantees, guaranteed, guarantee, by, numbers, number,
      value, values, all, can, be, used, applied, part, that, local, extrema, calculus, show,
      zero, root, solution, has, exists, least, one
    `,
    uses: ['span', 'compared'],
    own: (ref, { parts }) => {
      const level = parts.compared
      if (level && (theorem !== 'intermediate value theorem' || level.relation !== '=')) return null
      return [
        `${theorem} for ${curveText(ref)}${over(parts)}${level ? ` value ${level.target}` : ''}`,
      ]
    },
  })),
]
