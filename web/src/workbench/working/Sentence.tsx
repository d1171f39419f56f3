import {
  curveInk,
  isCurveMaker,
  kindOf,
  type LineProblem,
  type Phrase,
  type Statement,
} from '@yperkine/core'
import { memo } from 'react'
import { strokes } from '../../parts/inks'
import { Maths } from '../../parts/Maths'
import { useReading, useStudy } from '../store'
import { mostShort, Slot } from './Slot'

const samples = ['', '6 3.5', '0.1 4', '7 3 0.1 3']

/** The stroke a curve is drawn with, in front of its sentence. */
export function LineSample({ line }: { line: Statement }) {
  const stands = kindOf(line).drawn?.stands?.(line)
  const index = useStudy((s) =>
    stands ? s.lines.filter(isCurveMaker).findIndex((l) => l.name === stands.curve) : -1,
  )
  if (!stands || index < 0) return null
  const { order } = stands
  return (
    <svg width="28" height="10" className="mr-2 inline-block align-middle" aria-hidden>
      <path
        d="M1.5 5H26.5"
        className={strokes[curveInk(index)]}
        strokeWidth="3"
        strokeDasharray={samples[order] || undefined}
        strokeLinecap={order > 1 ? 'round' : 'butt'}
      />
    </svg>
  )
}

interface PhraseProps {
  line: Statement
  phrase: Phrase
  problem: LineProblem | undefined
}

/** A sentence is made anew whenever one of its values changes, and most of its phrases say the same. */
const saysTheSame = (a: PhraseProps, b: PhraseProps) =>
  a.line === b.line &&
  a.problem === b.problem &&
  JSON.stringify(a.phrase) === JSON.stringify(b.phrase)

/** A phrase of a sentence: words, mathematics, or what can be written anew unless it is read. */
export const PhraseView = memo(function PhraseView({ line, phrase, problem }: PhraseProps) {
  const reading = useReading()
  if (!('slot' in phrase)) {
    if (phrase.latex) return <Maths latex={phrase.latex} />
    return <span className="whitespace-pre-wrap">{phrase.text}</span>
  }
  if (reading) {
    // Words of people stand as they are; a formula that cannot be read, as it was typed.
    const isText = phrase.slot === 'words' || phrase.choices || problem?.at
    if (!isText) {
      return (
        <span className={phrase.text.length > mostShort ? 'long-formula' : ''}>
          <Maths latex={phrase.latex} />
        </span>
      )
    }
    return <span className="break-words">{problem?.at ? phrase.source : phrase.text}</span>
  }
  return (
    <Slot line={line} phrase={phrase} problem={phrase.slot === 'formula' ? problem : undefined} />
  )
}, saysTheSame)
