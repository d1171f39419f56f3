import { type RefObject, useEffect, useRef } from 'react'

interface Props {
  text: string
  /** The words that are not understood. */
  words: readonly string[]
  /** The last word too, though it may still be being typed. */
  withLast: boolean
  /** The field the text stands in, which may scroll. */
  field: RefObject<HTMLInputElement | null>
}

/** Lies behind a field and underlines words of what is typed there. */
export function UnderlinedText({ text, words, withLast, field }: Props) {
  const box = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const input = field.current
    const follow = () => {
      if (box.current && input) box.current.scrollLeft = input.scrollLeft
    }
    follow()
    input?.addEventListener('scroll', follow)
    return () => input?.removeEventListener('scroll', follow)
  }, [field, text])
  return (
    <div
      ref={box}
      aria-hidden
      className="absolute inset-0 overflow-hidden px-1 leading-10 whitespace-pre text-transparent"
    >
      {pieces(text, words, withLast).map(({ piece, isStrange }, i) =>
        isStrange ? (
          <span
            key={i}
            data-strange
            className="underline decoration-brick decoration-wavy decoration-[1.5px] underline-offset-4"
          >
            {piece}
          </span>
        ) : (
          <span key={i}>{piece}</span>
        ),
      )}
    </div>
  )
}

/** A text cut at the first place of each of some words, in any order. */
function pieces(text: string, words: readonly string[], withLast: boolean) {
  const found = words
    .map((word) => ({ from: text.toLowerCase().indexOf(word.toLowerCase()), length: word.length }))
    .filter(({ from, length }) => from >= 0 && (withLast || from + length < text.length))
    .sort((a, b) => a.from - b.from)
  const all: { piece: string; isStrange: boolean }[] = []
  let end = 0
  for (const { from, length } of found) {
    if (from < end) continue
    all.push({ piece: text.slice(end, from), isStrange: false })
    all.push({ piece: text.slice(from, from + length), isStrange: true })
    end = from + length
  }
  return [...all, { piece: text.slice(end), isStrange: false }]
}
