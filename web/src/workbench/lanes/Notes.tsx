import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import { changeLine, type Item, type Scene, widestNote } from '@yperkine/core'
import {
  type KeyboardEvent,
  type PointerEvent,
  type RefObject,
  useEffect,
  useRef,
  useState,
} from 'react'
import { texts } from '../../parts/inks'
import { useHandlePainting } from '../drawing/usePainting'
import { newGesture } from '../gestures/gesture'
import { useReading, useWorkbench, useWorkbenchStore } from '../store'
import { EditNote } from './EditNote'
import { writeNote } from './writeNote'

type Note = Item & { kind: 'note' }

/** The words on a lane's picture. */
export function Notes({ id, covered }: { id: string; covered: boolean }) {
  const keys = useWorkbench((s) =>
    (s.scene.lanes.find((l) => l.id === id)?.items ?? [])
      .flatMap((i) => (i.kind === 'note' ? [i.key] : []))
      .join('\n'),
  )
  const store = useWorkbenchStore()
  const known = useRef<ReadonlySet<string> | null>(null)
  // What comes while the study is open is told; what it opens with can be read.
  useEffect(() => {
    const now = keys === '' ? [] : keys.split('\n')
    const { scene, announce } = store.getState()
    const came = now.filter((key) => known.current && !known.current.has(key))
    known.current = new Set(now)
    const words = came.flatMap((key) => noteOf(scene, id, key)?.spoken ?? [])
    if (words.length > 0 && !covered) announce(words.join('. '))
  }, [keys, covered, id, store])
  if (keys === '' || covered) return null
  return keys
    .split('\n')
    .map((key) =>
      key === 'title' ? <Title key={key} id={id} /> : <NoteBox key={key} id={id} item={key} />,
    )
}

/** The title of the study on its picture. */
function Title({ id }: { id: string }) {
  const box = useRef<HTMLDivElement>(null)
  useNotePainting(id, 'title', box)
  return (
    <div
      ref={box}
      role="note"
      className="pointer-events-none absolute px-3 py-2 font-serif leading-[1.3] font-semibold select-none"
    >
      <div aria-hidden />
    </div>
  )
}

/** How far an arrow key moves a note, in pixels. */
const keyStep = 8
const ways: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/** Writes a note where it stands, as it stands now. */
function useNotePainting(id: string, key: string, box: RefObject<HTMLDivElement | null>) {
  const written = useRef<Note['lines'] | null>(null)
  useHandlePainting((scene) => {
    const note = noteOf(scene, id, key)
    const element = box.current
    if (!note || !element) return
    const { style } = element
    // Its size is estimated: what is put by somebody is held at its corner, what lies at an edge there.
    const isPut = note.pin === 'spot' || note.pin === 'place'
    const isRight = !isPut && note.x + note.width / 2 > scene.width / 2
    style.left = isRight ? '' : `${note.x}px`
    style.right = isRight ? `${scene.width - note.x - note.width}px` : ''
    style.top = `${note.y}px`
    style.width = 'max-content'
    style.maxWidth = `${widestNote(scene.width)}px`
    style.minHeight = `${note.height}px`
    style.fontSize = `calc(${note.type}px * var(--type))`
    element.classList.toggle('sr-only', note.unplaced === true)
    if (element.getAttribute('aria-label') !== note.spoken) {
      element.setAttribute('aria-label', note.spoken)
    }
    if (written.current === note.lines) return
    writeNote(element.firstElementChild as HTMLElement, note.lines, written.current)
    written.current = note.lines
  })
}

/** One note: dragged or moved by keys to its spot, edited in place. */
function NoteBox({ id, item: key }: { id: string; item: string }) {
  const store = useWorkbenchStore()
  const box = useRef<HTMLDivElement>(null)
  const handle = useRef<HTMLButtonElement>(null)
  const held = useRef<{ gesture: string; x: number; y: number; moved: boolean } | null>(null)
  const [editing, setEditing] = useState(false)
  const reading = useReading()
  const line = key.slice(0, key.indexOf('.'))
  const { apply } = store.getState()
  const present = () => noteOf(store.getState().scene, id, key)
  const ink = useWorkbench((s) => noteOf(s.scene, id, key)?.ink ?? 'ink')

  useNotePainting(id, key, box)

  /** Puts its top left corner somewhere, in pixels of the lane. */
  const put = (left: number, top: number, gesture?: string) => {
    const { scene } = store.getState()
    const lane = scene.lanes.find((l) => l.id === id)
    const note = present()
    if (!lane || !note) return
    const change = note.beside
      ? { x: left - note.beside.x, y: top + note.height - note.beside.y }
      : {
          pin: 'spot',
          x: Math.max(0, Math.min(1, left / scene.width)),
          y: Math.max(0, Math.min(1, top / lane.height)),
        }
    apply(changeLine(line, change), gesture)
  }
  const onPointerDown = (event: PointerEvent) => {
    const note = present()
    if (event.button !== 0 || !note || editing) return
    event.preventDefault()
    event.stopPropagation()
    event.currentTarget.setPointerCapture(event.pointerId)
    handle.current?.focus()
    held.current = {
      gesture: newGesture('drag.note'),
      x: event.clientX - (box.current?.offsetLeft ?? note.x),
      y: event.clientY - (box.current?.offsetTop ?? note.y),
      moved: false,
    }
  }
  const onPointerMove = (event: PointerEvent) => {
    const now = held.current
    const note = present()
    if (!now || !note) return
    const [left, top] = [event.clientX - now.x, event.clientY - now.y]
    if (!now.moved && Math.hypot(left - note.x, top - note.y) < 4) return
    if (!now.moved) store.getState().hold()
    now.moved = true
    put(left, top, now.gesture)
  }
  const onPointerUp = () => {
    const now = held.current
    held.current = null
    if (now?.moved) store.getState().release(() => 'Note moved')
  }
  const onKeyDown = (event: KeyboardEvent) => {
    const note = present()
    if (!note || editing || event.ctrlKey || event.metaKey || event.altKey) return
    const way = ways[event.key]
    if (way) {
      const step = event.shiftKey ? 1 : keyStep
      put(note.x + way[0] * step, note.y + way[1] * step, `key.note.${line}`)
    } else if (event.key === 'Enter') {
      setEditing(true)
    } else return
    event.preventDefault()
    event.stopPropagation()
  }
  const close = () => {
    setEditing(false)
    requestAnimationFrame(() => handle.current?.focus())
  }
  return (
    <>
      <div
        ref={box}
        role="note"
        className={`absolute rounded-md bg-paper/90 px-3 py-2 font-serif leading-[1.45] select-none ${texts[ink]} ${editing ? 'opacity-0' : ''}`}
      >
        <div aria-hidden />
        {!reading && (
          <button
            ref={handle}
            type="button"
            aria-label="Edit or move this note"
            title="Drag it, or double-click to edit it"
            className="absolute inset-0 cursor-move touch-none rounded-md"
            onPointerDown={onPointerDown}
            onPointerMove={onPointerMove}
            onPointerUp={onPointerUp}
            onPointerCancel={onPointerUp}
            onDoubleClick={() => setEditing(true)}
            onKeyDown={onKeyDown}
            onKeyUp={(event) => {
              if (event.key in ways) store.getState().release()
            }}
          />
        )}
      </div>
      {editing && <EditNote line={line} at={present()} onClose={close} />}
    </>
  )
}

function noteOf(scene: Scene, id: string, key: string): Note | undefined {
  const item = scene.lanes.find((l) => l.id === id)?.items.find((i) => i.key === key)
  return item?.kind === 'note' ? item : undefined
}

/** The notes for which the picture has no room, as they are heard. */
const unplacedOf = (scene: Scene, id: string) =>
  (scene.lanes.find((l) => l.id === id)?.items ?? []).flatMap((i) =>
    i.kind === 'note' && i.unplaced ? [i.spoken] : [],
  )

/** Notes that find no room on the picture, behind a button. */
export function NotesInHead({ id }: { id: string }) {
  const all = useWorkbench((s) => unplacedOf(s.scene, id).join('\n'))
  const reading = useReading()
  if (all === '') return null
  const words = all.split('\n')
  return (
    <Popover className="shrink-0">
      <PopoverButton
        className="pill text-ochre"
        title={
          reading
            ? 'No room for it on the picture'
            : 'No room for it on the picture: make the lane larger, or pin it somewhere'
        }
      >
        {words.length === 1 ? 'a note' : `${words.length} notes`}
      </PopoverButton>
      <PopoverPanel anchor="right start" className="popover z-30 grid max-w-80 gap-2 p-4">
        {words.map((text) => (
          <p key={text} className="font-serif">
            {text}
          </p>
        ))}
        <p className="text-quiet" hidden={reading}>
          There is no room for {words.length === 1 ? 'this' : 'these'} on the picture: make the lane
          larger, or choose a corner.
        </p>
      </PopoverPanel>
    </Popover>
  )
}
