import type { Fill, Ink, Tint } from '../scene/items'
import type { Mix } from '../statements/contract'

export const pictureLooks = ['paper', 'night', 'chalk', 'black and white'] as const
export type PictureLook = (typeof pictureLooks)[number]

/** Whether a look draws light lines on a dark ground. */
export const isDark = (look: PictureLook) => look === 'night' || look === 'chalk'

/** The colours of a look by what they stand for; the page has the same ones as tokens. */
export interface Palette {
  page: string
  paper: string
  /** Of spans on the ruler. */
  bar: string
  rule: string
  edge: string
  inks: Readonly<Record<Exclude<Ink, 'none'>, string>>
  /** The places and spans of a second and third line of a kind. */
  tints: Readonly<Record<Tint, { place: string; span: string; strip: string; stripBelow: string }>>
  strip: string
  stripBelow: string
  over: string
  short: string
  overFlat: string
  shortFlat: string
  positive: string
  negative: string
}

const tinted = (place: string, span: string, strip: string, stripBelow: string) => ({
  ...{ place, span, strip, stripBelow },
})

const ink = '#000000'
const grey = '#444444'

export const palettes: Readonly<Record<PictureLook, Palette>> = {
  paper: {
    bar: '#e9c66b',
    ...{ page: '#fffdf8', paper: '#f4efe4', rule: '#ddd4c2', edge: '#8a7f6a' },
    inks: {
      ...{ curve1: '#0f6b5c', curve2: '#3f5b86', curve3: '#7a3b69' },
      ...{ curve4: '#6b7a1e', curve5: '#6f4e37', place: '#b4471f', span: '#85590a' },
      ...{ axis: '#a39a88', grid: '#ece4d4', quiet: '#5e6862', ink: '#1e2a2c' },
    },
    tints: {
      1: tinted('#7a2e18', '#5c6420', '#dde3c2', '#e3dcbc'),
      2: tinted('#a3285a', '#7b4a2a', '#ecd9cb', '#e8d0c2'),
    },
    ...{ strip: '#f5e3b8', stripBelow: '#f3d9c4', over: '#8e2f3c', short: '#4c7a86' },
    ...{ overFlat: '#c98a90', shortFlat: '#9fbcc4', positive: '#d7e8e1', negative: '#f6dfd3' },
  },
  night: {
    bar: '#8a6a20',
    ...{ page: '#1b2625', paper: '#141d1c', rule: '#384845', edge: '#8a9c96' },
    inks: {
      ...{ curve1: '#5fc7ae', curve2: '#93b4e6', curve3: '#dd9fca' },
      ...{ curve4: '#bccb62', curve5: '#d5a888', place: '#f28f63', span: '#e5ba5a' },
      ...{ axis: '#8a9c96', grid: '#273532', quiet: '#aebab3', ink: '#efe8d9' },
    },
    tints: {
      1: tinted('#ffd0b5', '#c5d47a', '#2f3a20', '#38381f'),
      2: tinted('#ff9cc0', '#e0b08a', '#43302a', '#4a2f2a'),
    },
    ...{ strip: '#463a1c', stripBelow: '#4a3022', over: '#f1929e', short: '#86bccb' },
    ...{ overFlat: '#8f4a54', shortFlat: '#3f6d79', positive: '#1f3f38', negative: '#4a2e22' },
  },
  chalk: {
    bar: '#b08b33',
    ...{ page: '#101916', paper: '#0b1210', rule: '#4b5c56', edge: '#b3c2bc' },
    inks: {
      ...{ curve1: '#86ecd2', curve2: '#b7d2ff', curve3: '#ffc3ec' },
      ...{ curve4: '#e2f17f', curve5: '#ffd0ae', place: '#ffb08a', span: '#ffdc85' },
      ...{ axis: '#c4cfca', grid: '#24312d', quiet: '#d5ddd9', ink: '#ffffff' },
    },
    tints: {
      1: tinted('#ffe0cc', '#dcea8c', '#34431f', '#43431f'),
      2: tinted('#ffb3d1', '#ffd0ae', '#4f362c', '#57362c'),
    },
    ...{ strip: '#51431c', stripBelow: '#57361f', over: '#ffb3bd', short: '#a9e0ef' },
    ...{ overFlat: '#a8525d', shortFlat: '#4b8493', positive: '#17463b', negative: '#5a3220' },
  },
  // Told apart by dashes, hatches and tones that a copier keeps.
  'black and white': {
    bar: '#888888',
    ...{ page: '#ffffff', paper: '#ffffff', rule: '#888888', edge: grey },
    inks: {
      ...{
        curve1: ink,
        curve2: ink,
        curve3: ink,
        curve4: ink,
        curve5: ink,
        place: ink,
        span: grey,
      },
      ...{ axis: grey, grid: '#cccccc', quiet: grey, ink },
    },
    tints: {
      1: tinted(ink, grey, '#d8d8d8', '#eeeeee'),
      2: tinted(ink, grey, '#f2f2f2', '#d0d0d0'),
    },
    ...{ strip: '#e4e4e4', stripBelow: '#cfcfcf', over: ink, short: grey },
    ...{ overFlat: '#777777', shortFlat: '#aaaaaa', positive: '#ffffff', negative: '#dddddd' },
  },
}

/** The colour of an ink, as its line is tinted. */
export function inkIn(palette: Palette, of: Ink, tint: Tint | undefined): string | null {
  if (of === 'none') return null
  if (tint && (of === 'place' || of === 'span')) return palette.tints[tint][of]
  return palette.inks[of]
}

/** A colour of its own: between two inks as screens mix them, or by hue and lightness. */
export function mixIn(palette: Palette, mix: Mix): string {
  if ('hue' in mix)
    return hueHex(mix.hue, palette.inks.curve1 === ink ? 0 : mixSaturation, mix.lightness)
  const [a, b] = mix.between.map((ink) => palette.inks[ink]) as [string, string]
  const parts = [1, 3, 5].map((i) => {
    const [p, q] = [a, b].map((hex) => parseInt(hex.slice(i, i + 2), 16)) as [number, number]
    return Math.round(p + (q - p) * mix.share)
      .toString(16)
      .padStart(2, '0')
  })
  return `#${parts.join('')}`
}

/** How strong colours by hue are, in percent. */
export const mixSaturation = 60

/** HSL as in CSS Color 4, as hexadecimal. */
function hueHex(hue: number, saturation: number, lightness: number): string {
  const [s, l] = [saturation / 100, lightness / 100]
  const a = s * Math.min(l, 1 - l)
  const part = (n: number) => {
    const k = (n + hue / 30) % 12
    const value = l - a * Math.max(-1, Math.min(k - 3, 9 - k, 1))
    return Math.round(255 * value)
      .toString(16)
      .padStart(2, '0')
  }
  return `#${part(0)}${part(8)}${part(4)}`
}

export function fillIn(
  palette: Palette,
  fill: Exclude<Fill, 'own'>,
  tint: Tint | undefined,
): string | { hatch: 'up' | 'down'; colour: string } {
  switch (fill) {
    case 'page':
      return palette.page
    case 'strip':
    case 'area':
      return tint ? palette.tints[tint].strip : palette.strip
    case 'stripBelow':
      return tint ? palette.tints[tint].stripBelow : palette.stripBelow
    case 'over':
      return { hatch: 'up', colour: palette.over }
    case 'short':
      return { hatch: 'down', colour: palette.short }
    case 'overFlat':
      return palette.overFlat
    case 'shortFlat':
      return palette.shortFlat
  }
}
