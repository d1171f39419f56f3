import { substitute } from '../../algebra/curves'
import type { Tree } from '../../formula/tree'
import { nameToLatex } from '../../language/latex'
import type { RealSurface } from '../../surfaces/surface'
import type { Told } from '../../vocabulary/told'
import type { LineContext, LineProblem, Phrase, SentenceContext, SurfaceResult } from '../contract'
import { placeText } from '../shared/slots'
import { type Place, tellTree } from '../shared/toldNumbers'
import { placeSaidAs } from './words'

/** A point under a surface, by the texts of its coordinates. */
export interface PointTexts {
  of: string
  x: string
  y: string
}

/** " to f", and nothing for the surface that is called z. */
export const ofSurface = (name: string, before: string): Phrase[] =>
  name === 'z' ? [] : [{ text: ` ${before} ` }, { text: name, latex: nameToLatex(name) }]

/** "(a, b)" */
export function pointPhrases({ x, y }: Pick<PointTexts, 'x' | 'y'>, context: SentenceContext) {
  const slot = (field: 'x' | 'y', text: string): Phrase => ({
    slot: 'number',
    field,
    ...placeText(text, context),
  })
  return [{ text: '(' }, slot('x', x), { text: ', ' }, slot('y', y), { text: ')' }]
}

/** A point under a surface with its height. */
export interface PointOn {
  surface: SurfaceResult
  x: Place
  y: Place
  z: number
  /** Both coordinates were typed, and none of them slides. */
  isTyped: boolean
  /** It lies in the rectangle of the surface; else `notes` says so, and nothing is drawn for it. */
  isDrawn: boolean
  notes: readonly string[]
}

/** The point that a line hangs on, or what is in its way. */
export function lookAtPoint(
  line: PointTexts,
  context: LineContext,
): { ok: true; at: PointOn } | { ok: false; problem: LineProblem } {
  const found = context.surface(line.of)
  if (!found.ok) return found
  const { surface } = found
  const [x, y] = [context.number(line.x), context.number(line.y)]
  if (!x.ok) return x
  if (!y.ok) return y
  const z = surface.f.value(x.value, y.value)
  const said = placeSaidAs([x.value, y.value], context.decimals)
  if (!Number.isFinite(z)) {
    return {
      ok: false,
      problem: { message: `${surface.name} has no value at ${said}`, fix: 'move the point' },
    }
  }
  const { within } = surface
  const isDrawn =
    x.value >= within.x.lo &&
    x.value <= within.x.hi &&
    y.value >= within.y.lo &&
    y.value <= within.y.hi
  const place = ({ value, tree, rough }: typeof x): Place => ({ x: value, tree, rough })
  const isTyped = x.exact !== null && y.exact !== null
  const notes = isDrawn ? [] : [`${said} lies outside the rectangle that is drawn.`]
  return { ok: true, at: { surface, x: place(x), y: place(y), z, isTyped, isDrawn, notes } }
}

/** The formula of a value of a surface, or of one of its partial derivatives, at a point. */
export const treeAt = (f: RealSurface, { x, y }: Pick<PointOn, 'x' | 'y'>): Tree =>
  substitute(substitute(f.tree, f.letters[0], x.tree), f.letters[1], y.tree)

/** A value at the point, with every digit certain where its formula allows it. */
export function tellAt(f: RealSurface, at: PointOn, context: LineContext): Told {
  const known = f.value(at.x.x, at.y.x)
  const isRough = at.x.rough || at.y.rough
  return tellTree(isRough ? null : treeAt(f, at), known, context, at.isTyped)
}

/** Why there is no tangent plane at a point that has a height. */
export const noSlope = ({ surface, x, y }: PointOn, decimals: number): LineProblem => ({
  message: `${surface.name} has no slope in every direction at ${placeSaidAs([x.x, y.x], decimals)}: a fold, an edge or a tip lies there`,
  fix: 'move the point',
})

/** "∂z/∂x" */
export const partialName = (name: string, letter: string) => `∂${name}/∂${letter}`
