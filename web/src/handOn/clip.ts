import {
  clipOf,
  type ClipOptions,
  createThoroughEvaluator,
  type Drawing,
  fileNameOf,
  grownTrails,
  heightsIn,
  type PictureLook,
  pictureOf,
  type Typesetter,
} from '@yperkine/core'
import { applyPalette, GIFEncoder, type Palette, quantize } from 'gifenc'
import type { WorkbenchStore } from '../workbench/store'
import { paint } from './canvas'

export type ClipFormat = 'gif' | 'webm'

export interface ClipSettings extends ClipOptions {
  /** Of the whole picture with its ruler, in pixels; even numbers, as videos have. */
  width: number
  height: number
  look: PictureLook | null
}

export interface Making {
  /** Told after each frame: how many are done. */
  onFrame: (done: number, of: number) => void
  signal: AbortSignal
}

/** Stopped by the one who asked for it. */
export class Stopped extends Error {}

const even = (v: number) => Math.max(2, Math.round(v / 2) * 2)
const rulerHeight = 50

/** The pictures of a clip, one by one, in a frame that keeps still. */
function drawingsOf(store: WorkbenchStore, settings: ClipSettings) {
  const { history, shown, scene, trails: now, clipScenes } = store.getState()
  const clip = clipOf(settings.moves === 'steps' ? history.present : shown, settings)
  const evaluate = createThoroughEvaluator()
  const makeScene = clipScenes(settings.moves === 'steps' ? null : scene)
  let trails = now
  const at = (frame: number): Drawing => {
    const evaluation = evaluate(clip.at(frame))
    trails = grownTrails(trails, evaluation, true)
    const { lanes, display } = evaluation.study
    const bars = 14 * new Set(scene.bars.map(({ row }) => row)).size
    const room = settings.height - (lanes.length > 0 ? rulerHeight + bars : 0)
    const { space, lanes: forLanes } = heightsIn(evaluation, room)
    const share = Math.max(40, Math.floor(forLanes / Math.max(1, lanes.length)))
    const heights = Object.fromEntries(lanes.map(({ id }) => [id, share]))
    const made = makeScene(evaluation, { width: settings.width, heights, type: 1 }, trails)
    const look = settings.look ?? display.look
    const parts = { ground: true, ruler: true, title: false, notes: true, working: false }
    const inSpace = space === undefined ? {} : { space }
    const drawing = pictureOf(evaluation, made, { look, ...parts, ...inSpace })
    return { ...drawing, width: settings.width, height: settings.height }
  }
  return { count: clip.count, at }
}

/** A canvas on which the frames of a clip are drawn one after the other. */
function canvasOf(store: WorkbenchStore, given: ClipSettings, setter: Typesetter) {
  const settings = { ...given, width: even(given.width), height: even(given.height) }
  const canvas = new OffscreenCanvas(settings.width, settings.height)
  const context = canvas.getContext('2d', { willReadFrequently: true })
  if (!context) throw new Error('this browser has no canvas to draw on')
  const { count, at } = drawingsOf(store, settings)
  const draw = (frame: number) => paint(context, at(frame), setter)
  const pixels = () => context.getImageData(0, 0, settings.width, settings.height).data
  return { canvas, count, draw, pixels, ...settings }
}

/** Paints the first frame, as large as the clip is. */
export async function paintFirst(
  store: WorkbenchStore,
  settings: ClipSettings,
  onto: HTMLCanvasElement,
): Promise<void> {
  const { loadTypesetter } = await import('./typesetter')
  const { canvas, draw, width, height } = canvasOf(store, settings, await loadTypesetter())
  draw(0)
  ;[onto.width, onto.height] = [width, height]
  onto.getContext('2d')?.drawImage(canvas, 0, 0)
}

/** The page goes on in between, and whoever waits can stop it. */
async function pause({ signal }: Making) {
  await new Promise((resolve) => setTimeout(resolve))
  if (signal.aborted) throw new Stopped('stopped')
}

/** A clip as a file: frame for frame what the picture is at those values. */
export async function clipFile(
  store: WorkbenchStore,
  format: ClipFormat,
  settings: ClipSettings,
  making: Making,
): Promise<{ name: string; blob: Blob }> {
  const { loadTypesetter } = await import('./typesetter')
  const setter = await loadTypesetter()
  const made = canvasOf(store, settings, setter)
  const bytes = format === 'gif' ? await gifOf(made, making) : await webmOf(made, making)
  const title = store.getState().history.present.title
  const blob = new Blob([new Uint8Array(bytes)], {
    type: format === 'gif' ? 'image/gif' : 'video/webm',
  })
  return { name: fileNameOf(title, format), blob }
}

type Made = ReturnType<typeof canvasOf>

/** So many frames tell the colours of all. */
const lookedAt = 5
const transparent = 255

/** One palette for all frames; of each frame only what has changed since the one before. */
async function gifOf(made: Made, making: Making): Promise<Uint8Array> {
  const { count, draw, pixels, width, height, perSecond } = made
  const palette = await paletteOf(made, making)
  const encoder = GIFEncoder()
  let before: Uint8Array | null = null
  for (let frame = 0; frame < count; frame++) {
    draw(frame)
    const index = applyPalette(pixels(), palette)
    const shown: Uint8Array = before ? changed(index, before) : index
    encoder.writeFrame(shown, width, height, {
      ...(frame === 0 ? { palette, repeat: 0 } : {}),
      ...{ delay: 1000 / perSecond, dispose: 1 },
      ...(before ? { transparent: true, transparentIndex: transparent } : {}),
    })
    before = index
    making.onFrame(frame + 1, count)
    await pause(making)
  }
  encoder.finish()
  return encoder.bytes()
}

async function paletteOf({ count, draw, pixels }: Made, making: Making): Promise<Palette> {
  const looks = Math.min(count, lookedAt)
  const all: Uint8ClampedArray[] = []
  for (let k = 0; k < looks; k++) {
    draw(Math.round((k * (count - 1)) / Math.max(1, looks - 1)))
    all.push(pixels())
    await pause(making)
  }
  const together = new Uint8Array(all.reduce((sum, one) => sum + one.length, 0))
  let at = 0
  for (const one of all) {
    together.set(one, at)
    at += one.length
  }
  const palette = quantize(together, transparent)
  // The last place is kept for what has not changed.
  while (palette.length <= transparent) palette.push([0, 0, 0])
  return palette.slice(0, transparent + 1)
}

function changed(index: Uint8Array, before: Uint8Array): Uint8Array {
  const out = index.slice()
  for (let i = 0; i < out.length; i++) if (out[i] === before[i]) out[i] = transparent
  return out
}

/** Bits for each pixel of a frame: lines and letters stay sharp. */
const bitsPerPixel = 0.35

async function webmOf(made: Made, making: Making): Promise<Uint8Array> {
  const { canvas, count, draw, width, height, perSecond } = made
  const { BufferTarget, CanvasSource, Output, WebMOutputFormat } = await import('mediabunny')
  const codec = await encoderFor(width, height)
  if (!codec) throw new Error(noEncoder)
  const target = new BufferTarget()
  const output = new Output({ format: new WebMOutputFormat(), target })
  const bitrate = Math.round(width * height * perSecond * bitsPerPixel)
  const source = new CanvasSource(canvas, { codec, bitrate, keyFrameInterval: 2 })
  output.addVideoTrack(source, { frameRate: perSecond })
  await output.start()
  try {
    for (let frame = 0; frame < count; frame++) {
      draw(frame)
      await source.add(frame / perSecond, 1 / perSecond)
      making.onFrame(frame + 1, count)
      await pause(making)
    }
    await output.finalize()
  } catch (error) {
    await output.cancel()
    throw error
  }
  return new Uint8Array(target.buffer ?? new ArrayBuffer(0))
}

export const noEncoder = 'this browser has no encoder of video; a GIF can be made'

/** The encoder of video that this browser has for such a size, or null. */
export async function encoderFor(width: number, height: number): Promise<'vp9' | 'vp8' | null> {
  const { canEncodeVideo } = await import('mediabunny')
  for (const codec of ['vp9', 'vp8'] as const) {
    if (await canEncodeVideo(codec, { width, height })) return codec
  }
  return null
}
