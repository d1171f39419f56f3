import { type ComponentType, useEffect, useState } from 'react'
import type { FormulaFieldProps } from './FormulaEditor'

// The editor is the largest package of all, and the page can be read without it.
let loaded: ComponentType<FormulaFieldProps> | null = null
const load = () => import('./FormulaEditor').then((part) => (loaded = part.FormulaEditor))

/** Fetches the editor before it is asked for, once the page itself stands. */
export const preloadFormulaField = () => void load()

/** A field for a formula. Until its editor has arrived a plain field takes what is typed. */
export function FormulaField(props: FormulaFieldProps) {
  const [early, setEarly] = useState({ text: props.initial, focused: props.autoFocus ?? false })
  const [Editor, setEditor] = useState(() => loaded)
  useEffect(() => {
    if (Editor) return
    // One that cannot be fetched leaves the plain field, which serves as well.
    load().then(
      (part) => setEditor(() => part),
      () => undefined,
    )
  }, [Editor])
  if (Editor) {
    return (
      <Editor
        {...props}
        initial={early.text}
        autoFocus={early.focused}
        selectAll={early.text === props.initial}
      />
    )
  }
  return (
    <input
      aria-label={props.label}
      aria-describedby={props.describedBy}
      className="min-w-0 flex-1 bg-transparent font-serif outline-none"
      placeholder={props.hint}
      autoFocus={props.autoFocus}
      value={early.text}
      onFocus={() => setEarly((now) => ({ ...now, focused: true }))}
      onBlur={() => setEarly((now) => ({ ...now, focused: false }))}
      onChange={(event) => {
        const text = event.target.value
        setEarly((now) => ({ ...now, text }))
        props.onChange(text)
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          // Else the line break would go to the editor, where that comes in between.
          event.preventDefault()
          props.onEnter()
        }
        if (event.key === 'Escape') props.onEscape?.()
      }}
    />
  )
}
