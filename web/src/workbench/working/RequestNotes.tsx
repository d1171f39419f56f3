import type { Understood } from '@yperkine/core'

interface Props {
  text: string
  understood: Understood
  /** What is left to say once this has been added. */
  rest: string
  onMend: (text: string) => void
}

/** What stands between a request and its line: words that are not understood, or two that it may mean. */
export function RequestNotes({ text, understood, rest, onMend }: Props) {
  const { unread, begun, meant, equal, why } = understood
  const strange = begun ? [] : unread
  const notes = [
    ...(strange.length > 0 ? [`${quoted(strange)} ${were(strange)} not understood.`] : []),
    ...(strange.length === 0 && why !== null ? [why] : []),
    ...(strange.length === 0 && equal > 1 ? ['Which is meant?'] : []),
    ...(rest === '' ? [] : [`Next: “${rest}”`]),
  ]
  if (notes.length === 0) return null
  return (
    <div
      id="request-notes"
      role="status"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1.5 text-[calc(14px*var(--type))] text-quiet"
      // The field keeps the focus: what is pressed here changes what is typed there.
      onMouseDown={(event) => event.preventDefault()}
    >
      <span>{notes.join(' ')}</span>
      {meant !== null && (
        <button type="button" className="button py-0.5" onClick={() => onMend(meant)}>
          Say “{meant}”
        </button>
      )}
      {strange.length > 0 && (
        <button
          type="button"
          className="button py-0.5"
          onClick={() => onMend(withoutWords(text, strange))}
        >
          Leave {strange.length === 1 ? 'it' : 'them'} out
        </button>
      )}
    </div>
  )
}

const quoted = (words: readonly string[]) => words.map((word) => `“${word}”`).join(', ')
const were = (words: readonly string[]) => (words.length === 1 ? 'was' : 'were')

const withoutWords = (text: string, words: readonly string[]) =>
  words
    .reduce((left, word) => {
      const at = left.toLowerCase().indexOf(word.toLowerCase())
      return at < 0 ? left : left.slice(0, at) + left.slice(at + word.length)
    }, text)
    .replace(/\s+/g, ' ')
    .trim()
