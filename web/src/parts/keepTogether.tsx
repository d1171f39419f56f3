import type { ReactNode } from 'react'

/** A name with its primes, which a line may not part. */
const primed = /(\S*′\S*)/

/** Keeps "t = 2", "v′ < 0" and the primes of s′′ on one line: spaces that do not break, and spans. */
export function keepTogether(text: string): ReactNode {
  const spaced = text.replace(/ ([=<>≤≥≈]) /g, '\u00a0$1\u00a0')
  if (!primed.test(spaced)) return spaced
  return spaced.split(primed).map((part, i) =>
    i % 2 === 1 ? (
      <span key={i} className="whitespace-nowrap">
        {part}
      </span>
    ) : (
      part
    ),
  )
}

/** Keeps "(x − 1.5)" on one line, so that an equation breaks between its terms. */
export const bracketsTogether = (text: string) =>
  text.replace(/\([^()]{1,24}\)/g, (bracket) => bracket.replaceAll(' ', '\u00a0'))
