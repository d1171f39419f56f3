import type { Evaluation } from '../results/evaluation'
import { isFilled, markerPath } from '../scene/markers'
import type { Item } from '../scene/items'
import type { LaneScene, Scene } from '../scene/picture'
import { cameraOf } from '../scene/space/camera'
import { spaceOf } from '../scene/space/spaceScene'
import { sentenceText } from '../statements/shared/slots'
import type { Drawing, Drawn, Face, NotePiece } from './drawing'
import { fillIn, inkIn, isDark, mixIn, type Palette, palettes, type PictureLook } from './palettes'
import { spaceDrawn } from './space/drawn'

export interface PictureParts {
  look: PictureLook
  /** Without it the ground is transparent. */
  ground: boolean
  ruler: boolean
  title: boolean
  notes: boolean
  /** The sentences of the working and their results, below the picture. */
  working: boolean
  /** Without them results and live values are left out, for those who are to find them. */
  figures?: boolean
  /** How much larger than usual words and lines are. */
  scale?: number
  /** How high the view of the surfaces is, where the study has one. */
  space?: number
  /** Surfaces in few pieces, where a picture is to be small. */
  coarse?: boolean
}

const sans: Face = { family: 'sans', weight: 400, italic: false }
const strong: Face = { ...sans, weight: 600 }
const letter: Face = { family: 'serif', weight: 400, italic: true }
const serif: Face = { family: 'serif', weight: 400, italic: false }
const heading: Face = { ...serif, weight: 600 }

/** The dashes of the orders of a derivative, and those that someone has chosen, in pixels. */
const orders: readonly (readonly number[])[] = [[], [11, 6], [0.1, 6], [11, 5, 0.1, 5]]
const chosen = { solid: [], dashed: [11, 6], dotted: [0.1, 6] } as const
/** In black and white curves are told apart by their dashes. */
const curves: readonly (readonly number[])[] = [[], [16, 5], [4, 4], [16, 5, 4, 5], [2, 5]]

/** Room around the picture, above for a title, below for the ruler and a row of spans, in pixels. */
const titleHeight = 44
const rulerHeight = 50
const barRow = 14
const [lineHeight, gap] = [22, 8]

/** The height a picture has beside its lanes. */
export function heightBeside(
  scene: Pick<Scene, 'bars' | 'lanes'>,
  evaluation: Evaluation,
  parts: PictureParts,
): number {
  const { scale = 1 } = parts
  const rows = scene.bars.reduce((most, bar) => Math.max(most, bar.row + 1), 0)
  const working = parts.working ? rowsOf(evaluation).length * lineHeight + 3 * gap : 0
  return (
    (parts.title ? titleHeight * scale : 0) +
    (parts.ruler && scene.lanes.length > 0 ? rulerHeight * scale + rows * barRow : 0) +
    (parts.space ?? 0) +
    working * scale
  )
}

/**
 * The picture of a scene as it is handed on: what is on the screen is on it. A lane that is covered shows
 * its cover. Sizes are those of the scene.
 */
export function pictureOf(evaluation: Evaluation, scene: Scene, parts: PictureParts): Drawing {
  const palette = palettes[parts.look]
  const { study } = evaluation
  const { scale = 1 } = parts
  const items: Drawn[] = []
  let top = 0
  if (parts.title) {
    const y = titleHeight * scale * 0.66
    items.push(
      wordsAt(scene.width / 2, y, study.title, 22 * scale, heading, 'middle', palette.inks.ink),
    )
    top += titleHeight * scale
  }
  const space = parts.space === undefined ? null : spaceOf(evaluation)
  if (space && parts.space !== undefined) {
    const size = { width: scene.width, height: parts.space }
    const style = { palette, isDark: isDark(parts.look), scale }
    const camera = cameraOf(study.space, space.box, size)
    const inside = spaceDrawn(space, camera, style, parts.coarse ? 'moving' : 'still')
    items.push({ kind: 'group', x: 0, y: top, clip: size, items: inside })
    top += parts.space
    if (scene.lanes.length > 0) items.push(rule(0, top, scene.width, palette.rule))
  }
  for (const lane of scene.lanes) {
    items.push(laneOf(lane, top, evaluation, scene, palette, parts))
    top += lane.height
    items.push(rule(0, top, scene.width, palette.rule))
  }
  if (parts.ruler && scene.lanes.length > 0) {
    const { drawn, height } = rulerOf(top, evaluation, scene, palette, parts)
    items.push(...drawn)
    top += height
  }
  if (parts.working) {
    const { drawn, height } = workingOf(top, evaluation, scene.width, palette, scale)
    items.push(...drawn)
    top += height
  }
  return {
    ...{ width: scene.width, height: Math.ceil(top), title: study.title, items },
    ground: parts.ground ? palette.page : null,
    description: [
      ...(space ? [space.summary] : []),
      ...scene.lanes.map((lane) =>
        isCovered(lane, evaluation) ? `${lane.title} is covered.` : lane.summary,
      ),
    ].join(' '),
  }
}

const isCovered = ({ id }: LaneScene, { study }: Evaluation) =>
  study.lanes.find((lane) => lane.id === id)?.covered === true

const plainPath = (
  d: string,
  stroke: string | null,
  width: number,
  fill: string | null = null,
): Drawn => ({
  ...{ kind: 'path', d, stroke, width, fill, dashes: [], round: false, opacity: 1 },
})

const rule = (x: number, y: number, width: number, colour: string) =>
  plainPath(`M${x} ${y}H${x + width}`, colour, 1)

const wordsAt = (
  x: number,
  y: number,
  text: string,
  size: number,
  face: Face,
  anchor: 'start' | 'middle' | 'end',
  colour: string,
  halo: string | null = null,
): Drawn => ({ kind: 'words', x, y, text, size, face, anchor, colour, halo, opacity: 1 })

function laneOf(
  lane: LaneScene,
  top: number,
  evaluation: Evaluation,
  { width }: Scene,
  palette: Palette,
  parts: PictureParts,
): Drawn {
  const { scale = 1 } = parts
  const clip = { width, height: lane.height }
  if (isCovered(lane, evaluation)) {
    const words = `${lane.title} is covered`
    const middle = [width / 2, lane.height / 2] as const
    const colour = palette.inks.quiet
    return {
      ...{ kind: 'group', x: 0, y: top, clip },
      items: [
        plainPath(`M0 0H${width}V${lane.height}H0Z`, null, 0, palette.paper),
        wordsAt(...middle, words, 16 * scale, serif, 'middle', colour),
      ],
    }
  }
  const foot = lane.order === 1 || lane.order === 2 ? 22 : 4
  const ticks = lane.ticks
    .filter(({ at, silent }) => !silent && at > 12 && at < lane.height - foot)
    .map(({ at, text }) =>
      wordsAt(6, at - 4, text, 13 * scale, sans, 'start', palette.inks.quiet, palette.page),
    )
  const drawn = (item: Item) => drawnItem(item, palette, parts)
  const isGround = ({ layer }: Item) => layer === 'ground' || layer === 'insides'
  const items = [
    ...lane.items.filter(isGround).flatMap(drawn),
    ...ticks,
    ...lane.items.filter((item) => !isGround(item)).flatMap(drawn),
  ]
  if (lane.inset) {
    const { left, top: y, width: w, height: h, items: own } = lane.inset
    const box = `M${left} ${y}h${w}v${h}h${-w}Z`
    items.push(
      plainPath(box, null, 0, palette.page),
      { kind: 'group', x: left, y, clip: { width: w, height: h }, items: own.flatMap(drawn) },
      plainPath(box, palette.edge, 1),
    )
  }
  return { kind: 'group', x: 0, y: top, clip, items }
}

function drawnItem(item: Item, palette: Palette, parts: PictureParts): Drawn[] {
  const opacity = item.dimmed ? 0.35 : 1
  const { scale = 1 } = parts
  switch (item.kind) {
    case 'path': {
      if (item.d === '') return []
      const colour = item.mix ? mixIn(palette, item.mix) : inkIn(palette, item.ink, item.tint)
      const own = item.fill === 'own' ? colour : null
      const fill = item.fill && item.fill !== 'own' ? fillIn(palette, item.fill, item.tint) : own
      return [
        {
          ...{ kind: 'path', d: item.d, stroke: item.width > 0 ? colour : null, fill },
          opacity: opacity * (item.opacity ?? 1),
          ...{ width: item.width * scale, dashes: dashesOf(item, parts.look) },
          round: item.order !== undefined || item.dash !== undefined,
        },
      ]
    }
    case 'rect': {
      const { x, y, width, height, sign } = item
      const d = `M${x} ${y}h${width}v${height}h${-width}Z`
      return [{ ...(plainPath(d, null, 0, palette[sign]) as Drawn & { kind: 'path' }), opacity }]
    }
    case 'label': {
      const { x, y, text, anchor, named } = item
      if (parts.figures === false && !named && /\d/.test(text)) return []
      const colour = inkIn(palette, item.ink, item.tint) ?? palette.inks.ink
      const isPlain = named === true || item.ink === 'ink'
      const face = named ? letter : isPlain ? sans : strong
      const halo = isPlain ? null : palette.page
      const size = (named ? 17 : 13) * scale
      return [{ kind: 'words', x, y, text, size, face, anchor, colour, halo, opacity }]
    }
    case 'dot':
    case 'body': {
      const filled = item.kind === 'dot' ? isFilled(item.shape) : item.filled
      const colour = inkIn(palette, item.ink, item.tint) ?? palette.inks.ink
      const [fill, stroke] = filled ? [colour, palette.page] : [palette.page, colour]
      const { d, width, transform } =
        item.kind === 'dot'
          ? {
              d: markerPath(item.shape, item.x, item.y, item.reach),
              ...{ width: filled ? 2 : 3, transform: undefined },
            }
          : { d: item.d, width: item.width, transform: item.transform }
      if (d === '') return []
      return [
        {
          ...{ kind: 'path', d, stroke, width: width * scale, dashes: [], round: true, fill },
          ...{ opacity, ...(transform ? { transform } : {}) },
        },
      ]
    }
    case 'note': {
      const isTitle = item.key === 'title'
      if (item.unplaced || (isTitle ? parts.title : !parts.notes)) return []
      const { x, y, width, height } = item
      return [
        {
          ...{ kind: 'note', x, y, width, height, size: item.type * scale },
          right: item.pin !== 'spot' && item.pin !== 'place' && !isTitle,
          lines: item.lines.map((line) => line.map((run) => pieceOf(run, parts.figures !== false))),
          weight: isTitle ? 600 : 400,
          colour: inkIn(palette, item.ink, item.tint) ?? palette.inks.ink,
          ground: isTitle ? null : palette.paper,
        },
      ]
    }
  }
}

const pieceOf = (
  run: (Item & { kind: 'note' })['lines'][number][number],
  figures: boolean,
): NotePiece => {
  if (run.kind === 'maths') return { latex: run.latex }
  const isLive = run.live === true
  return { text: isLive && !figures ? '…' : run.text, strong: isLive }
}

function dashesOf(item: Item & { kind: 'path' }, look: PictureLook): readonly number[] {
  if (item.dash) return chosen[item.dash]
  if (item.dotted) return [2, 4]
  const index = /^curve(\d)$/.exec(item.ink)
  if (look === 'black and white' && index && item.order === 0) {
    return curves[Number(index[1]) - 1] ?? []
  }
  return orders[item.order ?? 0] ?? []
}

function rulerOf(
  top: number,
  { study }: Evaluation,
  { width, ticks, flags, bars, starts }: Scene,
  palette: Palette,
  parts: PictureParts,
): { drawn: Drawn[]; height: number } {
  const { scale = 1 } = parts
  const { quiet, axis, place } = palette.inks
  const rows = bars.reduce((most, bar) => Math.max(most, bar.row + 1), 0)
  const height = rulerHeight * scale + rows * barRow
  const { name, unit } = study.variable
  const title = [name, unit && `(${unit})`].filter(Boolean).join(' ')
  const covered = (at: number, text: string) =>
    flags.some((f) => Math.abs(f.at + f.shift - at) < (text.length * 4 + 12) * scale)
  const drawn: Drawn[] = [
    plainPath(`M0 ${top}h${width}v${height}h${-width}Z`, null, 0, palette.paper),
    ...ticks.flatMap(({ at, text, silent }) => {
      const half = text.length * 3.6 * scale
      const isCut = at < half || at > width - half
      return [
        plainPath(`M${at} ${top}v6`, axis, 1),
        ...(silent || isCut || covered(at, text)
          ? []
          : [wordsAt(at, top + 20 * scale, text, 13 * scale, sans, 'middle', quiet)]),
      ]
    }),
    ...bars.map((bar) => {
      const [from, to] = [Math.max(0, bar.from.at), Math.min(width, bar.to.at)]
      const y = top + 28 * scale + bar.row * barRow
      return plainPath(
        `M${from} ${y}h${Math.max(0, to - from)}v8h${-Math.max(0, to - from)}Z`,
        null,
        0,
        palette.bar,
      )
    }),
    {
      ...{ kind: 'group' as const, x: 0, y: top, clip: null },
      items: starts.flatMap((item) => drawnItem(item, palette, parts)),
    },
    ...flags
      .filter(({ at }) => at >= -2 && at <= width + 2)
      .flatMap(({ at, shift, text }) => {
        const shown = text.replaceAll('-', '−')
        const half = Math.max(9, shown.length * 4.2 + 5) * scale
        const [middle, y] = [at + shift, top + 1]
        const d = `M${at} ${y}L${middle + half} ${y + 9 * scale}V${y + 25 * scale}H${middle - half}V${y + 9 * scale}Z`
        return [
          plainPath(d, null, 0, place),
          wordsAt(
            middle,
            y + 20 * scale,
            shown,
            14 * scale,
            { ...letter, weight: 600 },
            'middle',
            palette.page,
          ),
        ]
      }),
    ...(title === ''
      ? []
      : [wordsAt(width / 2, top + height - 8 * scale, title, 13 * scale, sans, 'middle', quiet)]),
  ]
  return { drawn, height }
}

/** The sentences of the working with their results, as rows of words. */
function rowsOf({
  study,
  sentences,
  lines,
  off,
}: Evaluation): { text: string; value: string | null }[] {
  return study.lines
    .filter(({ id }) => !off.has(id))
    .flatMap(({ id }) => [
      { text: sentenceText(sentences.get(id) ?? []), value: null },
      ...(lines.get(id)?.readouts ?? []).map(({ label, text }) => ({ text: label, value: text })),
    ])
}

function workingOf(
  top: number,
  evaluation: Evaluation,
  width: number,
  palette: Palette,
  scale: number,
): { drawn: Drawn[]; height: number } {
  const { ink, quiet } = palette.inks
  const rows = rowsOf(evaluation)
  const drawn = rows.flatMap(({ text, value }, i): Drawn[] => {
    const y = top + (2 * gap + (i + 0.7) * lineHeight) * scale
    if (value === null) return [wordsAt(12 * scale, y, text, 16 * scale, serif, 'start', ink)]
    return [
      wordsAt(28 * scale, y, text, 14 * scale, sans, 'start', quiet),
      wordsAt(120 * scale, y, value, 15 * scale, strong, 'start', ink),
    ]
  })
  const height = (rows.length * lineHeight + 3 * gap) * scale
  return { drawn: [rule(0, top, width, palette.rule), ...drawn], height }
}
