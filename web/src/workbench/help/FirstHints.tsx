import { useState } from 'react'

const kept = 'yperkine.hints'
const hints = [
  'Press what is underlined with dots to change it.',
  'Drag a flag or a bar on the ruler: everything follows.',
  'Say below what to add, in plain words, or press /.',
]

/** A browser that keeps nothing shows the hints again. */
function seen(): boolean {
  try {
    return localStorage.getItem(kept) !== null
  } catch {
    return true
  }
}

/** Three things to know, for whoever opens a study for the first time; put away they stay away. */
export function FirstHints({ onMore }: { onMore: () => void }) {
  const [away, setAway] = useState(seen)
  if (away) return null
  const putAway = () => {
    localStorage.setItem(kept, 'put away')
    setAway(true)
  }
  return (
    <aside
      aria-label="To begin with"
      className="shrink-0 border-t border-rule bg-paper px-[18px] py-2.5"
    >
      <ol className="grid gap-0.5">
        {hints.map((hint, i) => (
          <li key={hint} className="grid grid-cols-[1.1rem_1fr]">
            <span aria-hidden className="font-serif text-rust italic">
              {i + 1}
            </span>
            {hint}
          </li>
        ))}
      </ol>
      <div className="mt-2 flex gap-2">
        <button type="button" className="button" onClick={putAway}>
          Put away
        </button>
        <button type="button" className="button" onClick={onMore}>
          How it works
        </button>
      </div>
    </aside>
  )
}
