import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react'
import { Eraser, Footprints, Highlighter, MonitorUp, Pencil, X } from 'lucide-react'
import { useEffect, useEffectEvent, useLayoutEffect, useRef, useState } from 'react'
import { DeckSwitches, useHasTrails } from '../deck/DeckSwitches'
import { Track } from '../deck/Track'
import { wallType } from '../drawing/layout'
import { Views } from '../space/Views'
import { useStudy, useWorkbench, useWorkbenchStore } from '../store'
import { type Drawn, DrawnOver, useDrawn } from './Drawn'
import { Figures } from './Figures'
import { useStepIds, useStepTitles, useStepWords } from './useLesson'
import { useFullScreen } from './useFullScreen'
import { useSpeaker } from './useSpeaker'
import { Ways } from './Ways'

/** The picture on a wall: one step after the other, led by keys, a clicker or a finger. */
export function Presenting() {
  const store = useWorkbenchStore()
  const open = useWorkbench((s) => s.history.step)
  const step = useStepWords(open)
  const numbers = useWorkbench((s) => s.presenting?.numbers ?? true)
  const title = useStudy((s) => s.title)
  const names = useStudy((s) => s.sliders.map((slider) => slider.name).join(' '))
  const [drawing, setDrawing] = useState(false)
  const [pointing, setPointing] = useState(false)
  const [leaving, setLeaving] = useState(false)
  const stage = useRef<HTMLElement>(null)
  const drawn = useDrawn(open)
  const { goOn, hideNumbers, announce } = store.getState()
  useSpeaker()
  useWallType()

  const end = () => {
    const { presenting, pause, endPresent } = store.getState()
    pause()
    if (presenting && store.getState().history.present !== presenting.before) setLeaving(true)
    else endPresent(true)
  }
  const excuse = useFullScreen(end)
  /** Plays what there is to play, and else goes on. */
  const space = () => {
    const { courses, pause, playStep } = store.getState()
    if (courses) pause()
    else if (!playStep()) goOn(1)
  }
  const speaker = () => {
    const { id } = store.getState()
    const opened = window.open(
      `/studies/${id}/speaker`,
      `speaker-${id}`,
      'popup,width=760,height=620',
    )
    excuse(opened !== null)
    announce(opened ? 'Speaker’s window opened' : 'The browser did not let the window open')
  }
  const keys = useEffectEvent((event: KeyboardEvent) => {
    const { target } = event
    const isField =
      target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)
    if (leaving || isField || event.ctrlKey || event.metaKey || event.altKey) return
    const onControl =
      target instanceof HTMLElement && target.closest('button, [role=slider], [role=switch]')
    const acts: Record<string, () => void> = {
      // What a clicker sends goes to the lesson, whatever has the focus.
      PageDown: () => goOn(1),
      PageUp: () => goOn(-1),
      ']': () => goOn(1),
      '[': () => goOn(-1),
      n: () => hideNumbers(numbers),
      w: drawn.wipe,
      d: () => setDrawing(!drawing),
      l: () => setPointing(!pointing),
      s: speaker,
      p: end,
      Escape: end,
      ...(onControl ? {} : { ' ': space, ArrowRight: () => goOn(1), ArrowLeft: () => goOn(-1) }),
    }
    const act = acts[event.key.length === 1 ? event.key.toLowerCase() : event.key]
    if (!act) return
    event.preventDefault()
    event.stopPropagation()
    act()
  })
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => keys(event)
    window.addEventListener('keydown', onKey, true)
    return () => window.removeEventListener('keydown', onKey, true)
  }, [])
  useEffect(() => stage.current?.focus(), [])

  return (
    <main
      ref={stage}
      tabIndex={-1}
      aria-label={`Presenting ${title}`}
      data-numbers={numbers ? 'shown' : 'hidden'}
      className="relative flex h-full flex-col bg-page outline-none"
    >
      <header className="flex items-start gap-6 px-[3vw] pt-[2vh] pb-[1vh] max-sm:flex-col max-sm:gap-1">
        <div className="min-w-0 flex-1">
          <h1 className="font-serif text-[calc(25px*var(--type))] leading-tight font-semibold">
            {step?.title || title}
          </h1>
          {step?.question && (
            <p className="font-serif text-[calc(16px*var(--type))] text-quiet">{step.question}</p>
          )}
        </div>
        <Figures />
      </header>
      <div className="relative flex min-h-0 flex-1">
        <Views />
        <DrawnOver drawn={drawn} drawing={drawing} />
      </div>
      <footer className="flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-rule px-[3vw] py-[1vh]">
        <Progress />
        <DeckSwitches />
        <Tools
          drawn={drawn}
          pointing={[pointing, setPointing]}
          drawing={[drawing, setDrawing]}
          onSpeaker={speaker}
          onEnd={end}
        />
        {names !== '' && (
          <div className="flex w-full flex-wrap items-center gap-x-8">
            {names.split(' ').map((name) => (
              <Track key={name} name={name} plain />
            ))}
          </div>
        )}
      </footer>
      {pointing && <LargePointer />}
      <Leaving open={leaving} onClose={() => setLeaving(false)} />
    </main>
  )
}

/** Which step it is, of how many; each can be gone to. */
function Progress() {
  const { goToStep } = useWorkbenchStore().getState()
  const ids = useStepIds()
  const titles = useStepTitles()
  const open = useWorkbench((s) => s.history.step)
  const at = ids.findIndex((id) => id === open)
  if (ids.length === 0) return null
  return (
    <nav aria-label="Lesson" className="flex max-w-full items-center gap-1.5 max-sm:gap-0.5">
      {ids.map((id, i) => (
        <button
          key={id}
          type="button"
          aria-label={titles[i]}
          title={titles[i]}
          aria-current={id === open ? 'step' : undefined}
          className="grid h-8 w-[clamp(10px,1.9vw,30px)] !min-w-0 shrink place-items-center pointer-coarse:h-11"
          onClick={() => goToStep(id)}
        >
          <span
            className={`h-1.5 w-full rounded-full ${i === at ? 'bg-ink' : i < at ? 'bg-kelp' : 'bg-rule'}`}
          />
        </button>
      ))}
      <span className="ml-2 text-[calc(13px*var(--type))] whitespace-nowrap text-quiet">
        {at + 1} of {ids.length}
      </span>
      <Ways />
    </nav>
  )
}

type Toggle = readonly [on: boolean, set: (on: boolean) => void]
interface ToolsProps {
  drawn: Drawn
  pointing: Toggle
  drawing: Toggle
  onSpeaker: () => void
  onEnd: () => void
}

/** What helps to lead a class, each by its key as well. */
function Tools({ drawn, pointing, drawing, onSpeaker, onEnd }: ToolsProps) {
  const { hideNumbers, clearTrails } = useWorkbenchStore().getState()
  const numbers = useWorkbench((s) => s.presenting?.numbers ?? true)
  const hasTrails = useHasTrails()
  return (
    <div className="ml-auto flex gap-1.5">
      <Tool
        label="Large pointer"
        letter="L"
        pressed={pointing[0]}
        onPress={() => pointing[1](!pointing[0])}
      >
        <Highlighter size={18} aria-hidden />
      </Tool>
      <Tool label="Draw" letter="D" pressed={drawing[0]} onPress={() => drawing[1](!drawing[0])}>
        <Pencil size={18} aria-hidden />
      </Tool>
      {hasTrails && (
        <Tool label="Clear trails" letter="C" onPress={clearTrails}>
          <Footprints size={18} aria-hidden />
        </Tool>
      )}
      {drawn.strokes.length > 0 && (
        <Tool label="Wipe" letter="W" onPress={drawn.wipe}>
          <Eraser size={18} aria-hidden />
        </Tool>
      )}
      {drawn.canKeep && (
        <button type="button" className="button" onClick={drawn.keep}>
          Keep the drawing
        </button>
      )}
      <Tool
        label={numbers ? 'Hide numbers' : 'Show numbers'}
        letter="N"
        onPress={() => hideNumbers(numbers)}
      >
        <span aria-hidden className="text-[15px] tabular-nums">
          {numbers ? '1.2' : '?'}
        </span>
      </Tool>
      <Tool label="Speaker’s window" letter="S" onPress={onSpeaker}>
        <MonitorUp size={18} aria-hidden />
      </Tool>
      <Tool label="End presenting" letter="P" onPress={onEnd}>
        <X size={18} aria-hidden />
      </Tool>
    </div>
  )
}

interface ToolProps {
  label: string
  letter: string
  pressed?: boolean
  onPress: () => void
  children: React.ReactNode
}

const Tool = ({ label, letter, pressed, onPress, children }: ToolProps) => (
  <button
    type="button"
    aria-label={label}
    title={`${label} (${letter})`}
    aria-pressed={pressed}
    className={`button min-h-9 px-2 pointer-coarse:min-h-11 pointer-coarse:min-w-11 ${pressed ? 'button-primary' : ''}`}
    onClick={onPress}
  >
    {children}
  </button>
)

/** Words and lines as large as a wall needs them, while it is presented. */
function useWallType() {
  useLayoutEffect(() => {
    const { style, dataset } = document.documentElement
    const set = () => {
      style.setProperty('--type', String(wallType()))
      style.setProperty('--line', String(wallType()))
    }
    set()
    dataset.presenting = ''
    window.addEventListener('resize', set)
    return () => {
      window.removeEventListener('resize', set)
      style.removeProperty('--type')
      style.removeProperty('--line')
      delete dataset.presenting
    }
  }, [])
}

/** A disc around the pointer that is seen from the last row. */
function LargePointer() {
  const disc = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const onMove = ({ clientX, clientY }: PointerEvent) => {
      const { style } = disc.current!
      style.transform = `translate(${clientX}px, ${clientY}px)`
      style.visibility = 'visible'
    }
    window.addEventListener('pointermove', onMove)
    return () => window.removeEventListener('pointermove', onMove)
  }, [])
  return (
    <div ref={disc} data-pointer className="pointer-events-none invisible fixed top-0 left-0 z-50">
      <div className="-mt-7 -ml-7 size-14 rounded-full border-4 border-rust bg-rust/25" />
    </div>
  )
}

/** What was changed while presenting is kept or dropped. */
function Leaving({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { endPresent, announce } = useWorkbenchStore().getState()
  const end = (keep: boolean) => {
    endPresent(keep)
    announce(keep ? 'What was changed is kept' : 'What was changed is dropped')
  }
  return (
    <Dialog open={open} onClose={onClose} className="fixed inset-0 z-50">
      <div className="fixed inset-0 bg-ink/30" aria-hidden />
      <div className="fixed inset-0 grid place-items-center p-6">
        <DialogPanel className="popover grid max-w-lg gap-4 p-6">
          <DialogTitle className="font-serif text-[calc(18px*var(--type))] font-semibold">
            Keep what was changed while presenting?
          </DialogTitle>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="button button-primary" onClick={() => end(true)}>
              Keep it
            </button>
            <button type="button" className="button" onClick={() => end(false)}>
              Drop it
            </button>
            <button type="button" className="button" onClick={onClose}>
              Go on presenting
            </button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
  )
}
