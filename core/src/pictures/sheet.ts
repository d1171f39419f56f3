import type { Evaluation } from '../results/evaluation'
import { type LineResult, type ResultTable, tableTitle } from '../statements/contract'
import { sentenceText } from '../statements/shared/slots'
import type { Drawing, Drawn, Face, Typesetter } from './drawing'
import { type Palette, palettes } from './palettes'
import { signChart, signChartHeight } from './signChart'

export const papers = { A4: [210, 297], Letter: [215.9, 279.4] } as const
export type Paper = keyof typeof papers

export interface SheetOptions {
  paper: Paper
  landscape: boolean
  /** Whether results stand on it, or lines to write them on. */
  answers: boolean
  /** The tables of lines, each with its head on every page. */
  tables: boolean
  /** Lines to write on at the end. */
  room: number
}

/** Pixels to a millimetre: 96 to an inch. */
export const pixelsOfMillimetre = 96 / 25.4
const margin = 16 * pixelsOfMillimetre
const gap = 10
/** Sizes of words, and from one line of them to the next. */
const [title, sentence, plain, cell] = [24, 16, 13.5, 12]
const leading = 1.42

const serif: Face = { family: 'serif', weight: 400, italic: false }
const heading: Face = { ...serif, weight: 600 }
const sans: Face = { family: 'sans', weight: 400, italic: false }
const strong: Face = { ...sans, weight: 600 }

/** A table on paper has so many rows at the most; what more there are is told. */
const mostRows = 400

/** How much of a page a picture may take, tried in turn, and what a last page has on it at the least. */
const pictureShares = [0.62, 0.54, 0.47, 0.4]
const leastOnPage = 90

/** A piece of a sheet that no page divides: so tall, drawn from its own top left corner. */
interface Block {
  height: number
  draw: (width: number) => Drawn[]
  /** What stands at the head of a page that begins with this block. */
  head?: Block
}

/** The size of a page in pixels. */
export function pageSize({ paper, landscape }: Pick<SheetOptions, 'paper' | 'landscape'>) {
  const [short, long] = papers[paper].map((mm) => Math.round(mm * pixelsOfMillimetre)) as [
    number,
    number,
  ]
  return landscape ? { width: long, height: short } : { width: short, height: long }
}

/** The room between the margins of a page. */
export const contentWidth = (options: Pick<SheetOptions, 'paper' | 'landscape'>) =>
  Math.floor(pageSize(options).width - 2 * margin)

/**
 * A study as pages to be printed: its title, its picture, its working with results or with lines to write
 * them on, and its tables. Nothing is cut: words are broken to the width, what does not fit goes on, and
 * the head of a table stands on each of its pages.
 */
export function sheetOf(
  evaluation: Evaluation,
  picture: Drawing,
  options: SheetOptions,
  setter: Typesetter,
): Drawing[] {
  const palette = palettes['black and white']
  const width = contentWidth(options)
  const { study } = evaluation
  const blocks = (share: number): Block[] => [
    ...wrapped(study.title, heading, title, width, palette.inks.ink, setter),
    ...(study.about ? wrapped(study.about, serif, plain, width, palette.inks.quiet, setter) : []),
    space(gap),
    pictureBlock(picture, options, share),
    space(gap),
    ...workingBlocks(evaluation, width, options, palette, setter),
    ...Array.from({ length: options.room }, () => writingLine(palette)),
  ]
  // A page with hardly anything on it is none: the picture gives way to its words.
  const tried = pictureShares.map((share) => paged(blocks(share), study.title, options, palette))
  return (tried.find(({ last }) => last >= leastOnPage) ?? tried[0]!).pages
}

/** What a handout shows of one step. */
export interface StepPicture {
  title: string
  question: string
  picture: Drawing
}

/** The steps of a lesson as pages: so many pictures on each, with their questions and room to write. */
export function handoutOf(
  study: string,
  steps: readonly StepPicture[],
  options: SheetOptions & { perPage: 1 | 2 | 4 },
  setter: Typesetter,
): Drawing[] {
  const palette = palettes['black and white']
  const page = pageSize(options)
  const columns = options.perPage === 4 ? 2 : 1
  const rows = options.perPage / columns
  const cellWidth = (contentWidth(options) - (columns - 1) * 2 * gap) / columns
  const cellHeight = (page.height - 2 * margin - 20) / rows
  const pages: Drawing[] = []
  for (let first = 0; first < steps.length; first += options.perPage) {
    const items: Drawn[] = steps.slice(first, first + options.perPage).map((step, i) => ({
      ...{ kind: 'group', clip: { width: cellWidth, height: cellHeight - gap } },
      x: margin + (i % columns) * (cellWidth + 2 * gap),
      y: margin + Math.floor(i / columns) * cellHeight,
      items: cellOf(step, `${first + i + 1}`, cellWidth, cellHeight - gap, palette, setter),
    }))
    pages.push(pageOf(items, study, pages.length + 1, page, palette))
  }
  return pages
}

/** One step: its words, its picture as large as there is room, and lines to write on below it. */
function cellOf(
  { title: name, question, picture }: StepPicture,
  number: string,
  width: number,
  height: number,
  palette: Palette,
  setter: Typesetter,
): Drawn[] {
  const words = [
    ...wrapped(`${number}. ${name}`, heading, sentence, width, palette.inks.ink, setter),
    ...(question ? wrapped(question, serif, plain, width, palette.inks.ink, setter) : []),
  ]
  const line = writingLine(palette)
  const used = words.reduce((sum, block) => sum + block.height, gap)
  const room = Math.max(40, height - used - 2 * line.height)
  const scale = Math.min(width / picture.width, room / picture.height)
  let y = 0
  const items: Drawn[] = words.flatMap((block) => {
    const drawn = moved(block.draw(width), 0, y)
    y += block.height
    return [drawn]
  })
  items.push(scaled(picture, 0, y + gap / 2, scale))
  y += gap + picture.height * scale
  for (; y + line.height <= height; y += line.height) items.push(moved(line.draw(width), 0, y))
  return items
}

const moved = (items: readonly Drawn[], x: number, y: number): Drawn => ({
  ...{ kind: 'group', x, y, clip: null, items },
})

/** A drawing made smaller or larger; its words and lines go with it. */
const scaled = (picture: Drawing, x: number, y: number, scale: number): Drawn => ({
  ...{ kind: 'group', x, y, clip: null, items: picture.items, scale },
})

const space = (height: number): Block => ({ height, draw: () => [] })

function pictureBlock(picture: Drawing, options: SheetOptions, share: number): Block {
  const page = pageSize(options)
  const width = contentWidth(options)
  const most = (page.height - 2 * margin) * share
  const scale = Math.min(width / picture.width, most / picture.height)
  return { height: picture.height * scale, draw: () => [scaled(picture, 0, 0, scale)] }
}

/** Words broken to a width, a block for each line; a word that is wider is broken as well. */
function wrapped(
  text: string,
  face: Face,
  size: number,
  width: number,
  colour: string,
  setter: Typesetter,
  indent = 0,
): Block[] {
  const most = width - indent
  const measure = (words: string) => setter.words(words, face, size).width
  const lines: string[] = []
  for (const paragraph of text.split('\n')) {
    let line = ''
    for (const word of paragraph.split(/(?<=\s)/)) {
      if (measure(line + word.trimEnd()) <= most) {
        line += word
        continue
      }
      if (line !== '') lines.push(line.trimEnd())
      line = ''
      for (const character of word) {
        if (measure(line + character) > most && line !== '') {
          lines.push(line)
          line = ''
        }
        line += character
      }
    }
    lines.push(line.trimEnd())
  }
  return lines.map((line) => ({
    height: size * leading,
    draw: () => [wordsAt(indent, size * 1.05, line, size, face, colour)],
  }))
}

const wordsAt = (
  x: number,
  y: number,
  text: string,
  size: number,
  face: Face,
  colour: string,
  anchor: 'start' | 'end' = 'start',
): Drawn => ({
  ...{ kind: 'words', x, y, text, size, face, anchor, colour, halo: null, opacity: 1 },
})

const ruleAt = (x: number, y: number, width: number, colour: string): Drawn => ({
  ...{ kind: 'path', d: `M${x} ${y}h${width}`, stroke: colour, width: 0.75, dashes: [] },
  ...{ round: false, fill: null, opacity: 1 },
})

const writingLine = ({ rule }: Palette): Block => ({
  height: 30,
  draw: (width) => [ruleAt(0, 28, width, rule)],
})

/** Sentences with their results, what is said of them, and their tables. */
function workingBlocks(
  { study, sentences, lines, off }: Evaluation,
  width: number,
  options: SheetOptions,
  palette: Palette,
  setter: Typesetter,
): Block[] {
  const { ink, quiet } = palette.inks
  return study.lines
    .filter(({ id }) => !off.has(id))
    .flatMap(({ id }, i) => {
      const result = lines.get(id)
      const text = `${i + 1}.  ${sentenceText(sentences.get(id) ?? [])}`
      const results = (result?.readouts ?? []).map(({ label, text: value }): Block => ({
        height: plain * 1.7,
        draw: (across) => [
          wordsAt(26, plain * 1.25, label, plain, sans, quiet),
          options.answers
            ? wordsAt(120, plain * 1.25, value, plain, strong, ink)
            : ruleAt(120, plain * 1.4, Math.min(across - 120, 220), quiet),
        ],
      }))
      const notes = options.answers ? (result?.notes ?? []) : []
      return [
        ...wrapped(text, serif, sentence, width, ink, setter),
        ...results,
        ...(options.answers && result ? toldOf(result, width, palette, setter) : []),
        ...notes.flatMap((note) => wrapped(note, sans, plain, width, quiet, setter, 26)),
        ...(options.tables && options.answers
          ? (result?.tables ?? []).flatMap((table) => tableBlocks(table, width, palette, setter))
          : []),
        space(gap),
      ]
    })
}

/** What a line says beside its numbers: a sum as it is written, signs, conclusions, and what is proven. */
function toldOf(
  { sigma, signs, conclusions = [], verdict }: LineResult,
  width: number,
  palette: Palette,
  setter: Typesetter,
): Block[] {
  const { ink, quiet } = palette.inks
  const sum = sigma ? setter.maths(sigma, sentence) : null
  return [
    ...(sigma && sum
      ? [
          {
            height: sum.above + sum.below + 10,
            draw: (): Drawn[] => [
              {
                ...{ kind: 'note', x: 26, y: 4, width: sum.width, right: false, weight: 400 },
                ...{ height: sum.above + sum.below, lines: [[{ latex: sigma }]] },
                ...{ size: sentence, colour: ink, ground: null },
              },
            ],
          },
        ]
      : []),
    ...(signs
      ? [
          {
            height: signChartHeight(signs),
            draw: () => [moved(signChart(signs, width - 26, palette, setter), 26, 2)],
          },
        ]
      : []),
    ...conclusions.flatMap(({ text }) => wrapped(text, serif, 14, width, ink, setter, 26)),
    ...(verdict ? wrapped(verdict.text, sans, plain, width, quiet, setter, 26) : []),
  ]
}

/** A table row by row, each page of it with its head; columns share the width by what they hold. */
function tableBlocks(
  { columns, count, rows: all, ...titled }: ResultTable,
  width: number,
  palette: Palette,
  setter: Typesetter,
): Block[] {
  const rows = all.slice(0, mostRows)
  if (columns.length === 0 || rows.length === 0) return []
  const { ink, quiet } = palette.inks
  const measure = (text: string, face: Face) => setter.words(text, face, cell).width
  const wide = columns.map((column, k) =>
    Math.max(measure(column, strong), ...rows.map((r) => measure(r.cells[k] ?? '', sans))),
  )
  const pad = 14
  const needed = wide.reduce((sum, w) => sum + w + pad, 0)
  // Columns that need more than the page has are set smaller, so that nothing is cut.
  const by = Math.min(1, width / needed)
  const ends = wide.map((_, k) => wide.slice(0, k + 1).reduce((sum, w) => sum + (w + pad) * by, 0))
  const height = cell * 1.6
  const rowOf = (cells: readonly string[], face: Face): Drawn[] =>
    cells.map((text, k) =>
      wordsAt((ends[k] ?? width) - (pad * by) / 2, cell * 1.2, text, cell * by, face, ink, 'end'),
    )
  const head: Block = {
    height: 2 * height,
    draw: () => [
      wordsAt(0, cell * 1.2, tableTitle(titled), cell, strong, quiet),
      moved([...rowOf(columns, strong), ruleAt(0, height - 1, ends.at(-1)!, quiet)], 0, height),
    ],
  }
  return [
    // A head does not stand alone at the foot of a page.
    {
      height: head.height + height,
      draw: (w) => [...head.draw(w), moved(rowOf(rows[0]!.cells, sans), 0, head.height)],
    },
    ...rows.slice(1).map(({ cells }): Block => ({ height, draw: () => rowOf(cells, sans), head })),
    ...(count > rows.length
      ? wrapped(`and ${count - rows.length} rows more`, sans, cell, width, quiet, setter)
      : []),
  ]
}

/** Blocks one under the other, on as many pages as they need, and how tall it is on the last of several. */
function paged(
  blocks: readonly Block[],
  study: string,
  options: SheetOptions,
  palette: Palette,
): { pages: Drawing[]; last: number } {
  const page = pageSize(options)
  const width = contentWidth(options)
  const bottom = page.height - margin - 20
  const pages: Drawn[][] = [[]]
  let y = margin
  for (const block of blocks) {
    if (y + block.height > bottom && y > margin) {
      pages.push([])
      y = margin
      if (block.head) {
        pages.at(-1)!.push(moved(block.head.draw(width), margin, y))
        y += block.head.height
      }
    }
    pages.at(-1)!.push(moved(block.draw(width), margin, y))
    y += block.height
  }
  const drawn = pages.map((items, i) => pageOf(items, study, i + 1, page, palette, pages.length))
  return { pages: drawn, last: pages.length === 1 ? Infinity : y - margin }
}

function pageOf(
  items: readonly Drawn[],
  study: string,
  number: number,
  { width, height }: { width: number; height: number },
  palette: Palette,
  count?: number,
): Drawing {
  const foot = count === undefined ? `${number}` : `${number} of ${count}`
  const at = [width - margin, height - margin + 6] as const
  return {
    ...{ width, height, ground: '#ffffff', title: study },
    description: `Page ${foot}`,
    items: [...items, wordsAt(...at, foot, 10.5, sans, palette.inks.quiet, 'end')],
  }
}
