import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { EditorState, StateEffect, StateField } from '@codemirror/state'
import { Decoration, type DecorationSet, EditorView, keymap, placeholder } from '@codemirror/view'
import { useEffect, useEffectEvent, useLayoutEffect, useRef } from 'react'

export interface Underline {
  from: number
  to: number
}

export interface FormulaFieldProps {
  label: string
  initial: string
  hint?: string
  autoFocus?: boolean
  /** Whether taking the focus selects everything; otherwise the caret stands at the end. */
  selectAll?: boolean
  underlines: readonly Underline[]
  describedBy?: string
  onChange: (text: string) => void
  onEnter: () => void
  onEscape?: () => void
}

const setUnderlines = StateEffect.define<readonly Underline[]>()
const problemMark = Decoration.mark({ class: 'formula-problem' })
const underlineField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(marks, transaction) {
    let next = marks.map(transaction.changes)
    for (const effect of transaction.effects) {
      if (!effect.is(setUnderlines)) continue
      const length = transaction.state.doc.length
      const ranges = effect.value
        // A problem at the very end underlines the last character, so that it can be seen.
        .map(({ from, to }) => ({
          from: Math.min(from, Math.max(0, length - 1)),
          to: Math.min(Math.max(to, from + 1), length),
        }))
        .filter(({ from, to }) => from < to)
        .sort((a, b) => a.from - b.from)
      next = Decoration.set(ranges.map(({ from, to }) => problemMark.range(from, to)))
    }
    return next
  },
  provide: (field) => EditorView.decorations.from(field),
})

/** A one-line field for formulas: Enter commits, Escape gives up, problems are underlined. */
export function FormulaEditor(props: FormulaFieldProps) {
  const { label, initial, hint, autoFocus = false, underlines, describedBy } = props
  const startFocused = useEffectEvent(() => autoFocus)
  const anchor = useEffectEvent((end: number) => (props.selectAll === false ? end : 0))
  const parent = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView | null>(null)
  const onChange = useEffectEvent(props.onChange)
  const onEnter = useEffectEvent(props.onEnter)
  const onEscape = useEffectEvent(() => props.onEscape?.())
  const start = useEffectEvent(() => initial)

  // Before the next key: it may stand in for a field that is being typed into.
  useLayoutEffect(() => {
    const attributes: Record<string, string> = { 'aria-label': label, 'aria-multiline': 'false' }
    if (describedBy) attributes['aria-describedby'] = describedBy
    const { length } = start()
    const editor = new EditorView({
      parent: parent.current!,
      state: EditorState.create({
        doc: start(),
        // Set before it has the focus: a key may come in between.
        ...(startFocused() ? { selection: { anchor: anchor(length), head: length } } : {}),
        extensions: [
          history(),
          keymap.of([
            { key: 'Enter', run: () => (onEnter(), true) },
            { key: 'Escape', run: () => (onEscape(), true) },
            ...historyKeymap,
            ...defaultKeymap,
          ]),
          underlineField,
          EditorView.editorAttributes.of({ class: 'formula' }),
          EditorView.contentAttributes.of(attributes),
          EditorView.lineWrapping,
          // Pasted line breaks become spaces: a formula is one line.
          EditorState.transactionFilter.of((transaction) => {
            if (transaction.newDoc.lines <= 1) return transaction
            const text = transaction.newDoc.toString().replace(/\s*\n\s*/g, ' ')
            return {
              changes: { from: 0, to: transaction.startState.doc.length, insert: text },
              selection: { anchor: text.length },
            }
          }),
          EditorView.updateListener.of((update) => {
            if (update.docChanged) onChange(update.state.doc.toString())
          }),
          ...(hint ? [placeholder(hint)] : []),
        ],
      }),
    })
    view.current = editor
    if (startFocused()) editor.focus()
    return () => {
      view.current = null
      editor.destroy()
    }
  }, [label, hint, describedBy])

  useEffect(() => {
    view.current?.dispatch({ effects: setUnderlines.of(underlines) })
  }, [underlines])

  return <div ref={parent} className="min-w-0 flex-1" />
}
