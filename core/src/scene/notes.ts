import type { Mark, NoteRun } from '../statements/contract'
import { plainMaths } from '../statements/words'
import type { Item } from './items'
import { type Frame, toPixelX, toPixelY } from './frame'
import { type Corner, boxInCorner } from './corners'
import type { LabelSides } from './labels'
import { type Box, isClear, meet, type Obstacles } from './obstacles'
import { round } from './sampleCurve'
import { textWidth } from './textWidth'

type Note = Item & { kind: 'note' }

/** How large the title is set, in pixels. */
const titleType = 24
/** What `textWidth` measures is set in this size. */
const measured = 13
/** A serif is wider. */
const asSet = 1.08
/** Around the words, and between their lines. */
const [paddingX, paddingY, leading] = [12, 8, 1.45]
/** No line of a note is longer, in pixels or as a share of its lane. */
const [widest, widestShare] = [380, 0.7]
/** The most a note is wide, padding included. */
export const widestNote = (laneWidth: number) => Math.min(widest, laneWidth * widestShare)

const runWidth = (run: NoteRun) =>
  run.kind === 'text' ? textWidth(run.text) : textWidth(plainMaths(run.latex)) * 1.15 + 6

/** The room that a note takes, its words set so much `larger`; longer lines are broken. */
export function noteSize(
  { lines, type }: Pick<Note, 'lines' | 'type'>,
  laneWidth: number,
  larger = 1,
): { width: number; height: number } {
  const set = type * larger
  const most = widestNote(laneWidth) - 2 * paddingX
  const widths = lines.map(
    (line) => line.reduce((sum, run) => sum + runWidth(run), 0) * (set / measured) * asSet,
  )
  const rows = lines.reduce((sum, line, i) => {
    const tall = line.some(
      (run) => run.kind === 'maths' && /\\(?:frac|begin|sum|int)/.test(run.latex),
    )
    const pieces = line.reduce(
      (most, run) => (run.kind === 'maths' ? Math.max(most, run.latex.split('\\\\').length) : most),
      1,
    )
    return sum + Math.max(Math.ceil(widths[i]! / most), pieces) * (tall ? 1.5 : 1)
  }, 0)
  return {
    width: Math.ceil(Math.min(most, Math.max(...widths)) + 2 * paddingX),
    height: Math.ceil(rows * set * leading + 2 * paddingY),
  }
}

/** A note before it has its room on the lane. */
export function noteItem(
  mark: Mark & { kind: 'note' },
  frame: Frame,
  key: string,
): Omit<Note, 'layer'> {
  const { lines, spoken, pin, shiftX, shiftY, type, point } = mark
  const beside = point && {
    x: round(toPixelX(frame, point.x)),
    y: round(toPixelY(frame, point.y)),
  }
  return {
    kind: 'note',
    key,
    ...{ x: 0, y: 0, width: 0, height: 0, ink: 'ink', lines, spoken, type, pin },
    shift: [shiftX, shiftY],
    ...(beside ? { beside } : {}),
  }
}

/** The title of the study on its picture. */
export const titleKey = 'title'
export const titleNote = (title: string): Note => ({
  ...{ kind: 'note', key: titleKey, layer: 'marks', x: 0, y: 0, width: 0, height: 0, ink: 'ink' },
  ...{ lines: [[{ kind: 'text', text: title }]], spoken: title, type: titleType, pin: 'auto' },
  shift: [0, 0],
})

const corners: readonly Corner[] = ['top right', 'top left', 'bottom right', 'bottom left']
/** So many places across and down are tried where no corner is free. */
const [across, down] = [9, 6]

/**
 * Gives each note its room: in its corner, where it was put, beside its point, or, where nobody has said,
 * where it covers no curve, point or other words. One that finds no room is left out of the picture, and
 * is still told. `last` is read and written, so that a note keeps to its place while something moves.
 */
export function placeNotes(
  notes: readonly Note[],
  { width, height }: { width: number; height: number },
  foot: number,
  obstacles: Obstacles,
  last: LabelSides,
): Note[] {
  const taken: Box[] = []
  return notes.map((note): Note => {
    const size = noteSize(note, width, obstacles.type)
    const put = (box: Box): Note => {
      const left = Math.max(0, Math.min(width - size.width, box.left))
      const top = Math.max(0, Math.min(height - size.height, box.top))
      taken.push({ left, top, right: left + size.width, bottom: top + size.height })
      return { ...note, ...size, x: round(left), y: round(top) }
    }
    const at = (left: number, top: number): Box => ({
      ...{ left, top, right: left + size.width, bottom: top + size.height },
    })
    const [dx, dy] = note.shift
    if (note.pin === 'spot') return put(at(dx * width, dy * height))
    if (note.pin === 'place') {
      return note.beside
        ? put(at(note.beside.x + dx, note.beside.y + dy - size.height))
        : { ...note, ...size, unplaced: true }
    }
    if (note.pin !== 'auto') return put(boxInCorner(note.pin, { width, height }, size, foot))
    const middle = at((width - size.width) / 2, 8)
    const tried: Box[] = corners.map((corner) => boxInCorner(corner, { width, height }, size, foot))
    // A title stands in the middle at the top where it can.
    if (note.key === titleKey) tried.unshift(middle)
    for (let j = 0; j < down; j++) {
      for (let i = 0; i < across; i++) {
        const [left, top] = [
          44 + ((width - 50 - size.width) * i) / (across - 1),
          6 + ((height - foot - 12 - size.height) * j) / (down - 1),
        ]
        tried.push(at(left, top))
      }
    }
    const isFree = (box: Box) =>
      box.left >= 0 &&
      box.top >= 0 &&
      box.right <= width &&
      box.bottom <= height - foot &&
      isClear(box, obstacles, true) &&
      !taken.some((other) => meet(other, box))
    const before = tried[last.get(note.key) ?? -1]
    const found = before && isFree(before) ? before : tried.find(isFree)
    if (!found) return { ...note, ...size, unplaced: true }
    last.set(note.key, tried.indexOf(found))
    return put(found)
  })
}
