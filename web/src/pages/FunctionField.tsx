import type { Study } from '@yperkine/core'
import { type ComponentProps, type ComponentType, useState } from 'react'
import { reach } from '../api'
import { FieldFrame, fieldHint } from './FieldFrame'
import type { FunctionEntry } from './FunctionEntry'

interface Props {
  onCreate: (study: Study, left: string) => void
}

/**
 * "Let f(x) = …": what is typed here becomes a study. What reads a formula is by far the most of the
 * program, so it is fetched when someone comes to type; until it is here a plain field takes the keys.
 */
export function FunctionField({ onCreate }: Props) {
  const [early, setEarly] = useState({ text: '', focused: false, entered: false })
  const [Entry, setEntry] = useState<ComponentType<ComponentProps<typeof FunctionEntry>> | null>(
    null,
  )
  const [fault, setFault] = useState<Error | null>(null)
  const fetchEntry = () => {
    reach(import('./FunctionEntry')).then(
      (part) => setEntry(() => part.FunctionEntry),
      (error: Error) => setFault(error),
    )
  }
  if (Entry) return <Entry early={early} onCreate={onCreate} />
  const enter = () => {
    setEarly((now) => ({ ...now, entered: true }))
    fetchEntry()
  }
  return (
    <div className="mt-4">
      <FieldFrame before="name" canOpen={early.text.trim() !== ''} onOpen={enter}>
        <input
          aria-label="Function"
          className="min-w-0 flex-1 bg-transparent font-serif outline-none"
          placeholder={fieldHint}
          value={early.text}
          onPointerEnter={fetchEntry}
          onFocus={() => {
            setEarly((now) => ({ ...now, focused: true }))
            fetchEntry()
          }}
          onBlur={() => setEarly((now) => ({ ...now, focused: false }))}
          onChange={(event) => {
            const text = event.target.value
            setEarly((now) => ({ ...now, text, entered: false }))
          }}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return
            // Else the line break would go to the editor, where that comes in between.
            event.preventDefault()
            enter()
          }}
        />
      </FieldFrame>
      <div className="min-h-7 px-5 pt-1">
        {fault && (
          <p role="alert" className="text-brick">
            What reads a formula has not arrived: {fault.message}. Nothing you typed is lost; press
            Enter to try again.
          </p>
        )}
      </div>
    </div>
  )
}
