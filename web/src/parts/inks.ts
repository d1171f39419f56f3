import { type Fill, type Ink, type LineLook, type Mix, mixSaturation } from '@yperkine/core'

/** What each ink is drawn with. */
export const strokes: Record<Ink, string> = {
  curve1: 'stroke-kelp',
  curve2: 'stroke-slate',
  curve3: 'stroke-plum',
  curve4: 'stroke-moss',
  curve5: 'stroke-umber',
  place: 'stroke-rust',
  span: 'stroke-ochre',
  axis: 'stroke-axis',
  grid: 'stroke-grid',
  quiet: 'stroke-quiet',
  ink: 'stroke-ink',
  none: '',
}
/** The same for what is filled. */
export const fills: Record<Ink, string> = {
  curve1: 'fill-kelp',
  curve2: 'fill-slate',
  curve3: 'fill-plum',
  curve4: 'fill-moss',
  curve5: 'fill-umber',
  place: 'fill-rust',
  span: 'fill-ochre',
  axis: 'fill-axis',
  grid: 'fill-grid',
  quiet: 'fill-quiet',
  ink: 'fill-ink',
  none: '',
}
/** The same for words. */
export const texts: Record<Ink, string> = {
  curve1: 'text-kelp',
  curve2: 'text-slate',
  curve3: 'text-plum',
  curve4: 'text-moss',
  curve5: 'text-umber',
  place: 'text-rust',
  span: 'text-ochre',
  axis: 'text-axis',
  grid: 'text-grid',
  quiet: 'text-quiet',
  ink: 'text-ink',
  none: '',
}
/** The hatches stand once on the page; see Hatches. */
export const insides: Record<Exclude<Fill, 'own'>, string> = {
  page: 'var(--color-page)',
  strip: 'var(--color-strip)',
  stripBelow: 'var(--color-strip-below)',
  over: 'url(#hatch-over)',
  short: 'url(#hatch-short)',
  overFlat: 'var(--color-over-flat)',
  shortFlat: 'var(--color-short-flat)',
  area: 'var(--color-strip)',
}

/** The colours to choose from, as grounds. */
export const grounds: Record<NonNullable<LineLook['colour']>, string> = {
  kelp: 'bg-kelp',
  slate: 'bg-slate',
  plum: 'bg-plum',
  moss: 'bg-moss',
  umber: 'bg-umber',
  rust: 'bg-rust',
  ochre: 'bg-ochre',
}

/** The tokens that colours are mixed of. */
const tokens = {
  ...{ curve1: 'kelp', curve2: 'slate', curve3: 'plum', curve4: 'moss', curve5: 'umber' },
  ...{ place: 'rust', span: 'ochre' },
} as const

/** A colour of its own, as CSS. */
export function mixed(mix: Mix): string {
  if ('hue' in mix) return `hsl(${mix.hue} ${mixSaturation}% ${mix.lightness}%)`
  const [a, b] = mix.between.map((ink) => `var(--color-${tokens[ink]})`)
  return `color-mix(in srgb, ${b} ${(100 * mix.share).toFixed(1)}%, ${a})`
}
