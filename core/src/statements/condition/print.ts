import type { Condition } from './read'

/** How parts are called: the letter of one by its id, or null where there is none any more. */
export type LetterOf = (id: string) => string | null

/**
 * A condition with every formula and letter of a curve in it put through a change, and parts as they
 * are called now or, for keeping, with their ids. Printing what was read gives a condition that reads
 * the same.
 */
export function printCondition(
  condition: Condition,
  { names = (text) => text, part }: { names?: (text: string) => string; part: PartText },
): string {
  const print = (one: Condition, within: 'or' | 'and' | 'not' | null): string => {
    switch (one.kind) {
      case 'and':
      case 'or': {
        const text = one.of.map((each) => print(each, one.kind)).join(` ${one.kind} `)
        // Or stands in parentheses within and, and both within not.
        const held = within === 'not' || (one.kind === 'or' && within === 'and')
        return held || within === one.kind ? `(${text})` : text
      }
      case 'not':
        return `not ${print(one.of, 'not')}`
      case 'part':
        return part(one.letter, one.id)
      case 'compare':
        return one.sides
          .map((side, i) => `${i === 0 ? '' : ` ${one.signs[i - 1]!} `}${names(side.text)}`)
          .join('')
      case 'shape':
        return `${names(one.curve.text)}${one.primes} ${one.shape} at ${names(one.place.text)}`
      case 'near': {
        const an = one.feature === 'inflection' ? 'an' : 'a'
        const within = one.within ? `within ${names(one.within.text)} of` : 'at'
        return `${names(one.curve.text)}${one.primes} has ${an} ${one.feature} ${within} ${names(one.place.text)}`
      }
    }
  }
  return print(condition, null)
}

export type PartText = (letter: string, id: string | null) => string

/** As a part is kept: by its letter as it was last, and its id. */
export const keptPart: PartText = (letter, id) => `part ${letter}${id === null ? '' : `[${id}]`}`

/** As a part is read. */
export const readPart =
  (letterOf: LetterOf): PartText =>
  (letter, id) =>
    `part ${(id === null ? null : letterOf(id)) ?? letter}`

/** All conditions in a condition, itself among them. */
export const conditionsIn = (condition: Condition): Condition[] => [
  condition,
  ...(condition.kind === 'and' || condition.kind === 'or'
    ? condition.of.flatMap(conditionsIn)
    : condition.kind === 'not'
      ? conditionsIn(condition.of)
      : []),
]
