import { boundIn, parseSpan } from '../../vocabulary/values'
import type { SpanText } from '../../vocabulary/members'
import type { NewSlider, Request, SurfaceSaid } from '../contract'
import { placeSaid, takenNames } from '../shared/slots'

/** A surface as it is typed. */
interface Definition {
  name: string
  letters: readonly [string, string]
  body: string
  /** Two variables or the word say that it is one, whatever the formula has. */
  isSaid: boolean
}

const callSide =
  /^(?:let\s+)?(?:the\s+)?(?:surface\s+)?(?:z\s*=\s*)?(\p{L}[₀-₉]{0,3})\s*\(\s*(\p{L})\s*,\s*(\p{L})\s*\)\s*=\s*(.*)$/isu
const shortSide = /^(?:let\s+)?(?:the\s+)?(surface\s+)?(?:(\p{L}[₀-₉]{0,3})\s*=\s*)?(.*)$/isu

/** f(x, y) = …, z = f(x, y) = …, surface z = …, z = …: null where a text is none of these. */
export function surfaceDefinition(text: string): Definition | null {
  const called = callSide.exec(text.trim())
  if (called) {
    const [, name = '', first = '', second = '', body = ''] = called
    if (first === second || body.trim() === '') return null
    return { name, letters: [first, second], body, isSaid: true }
  }
  const [, word, name, body = ''] = shortSide.exec(text.trim()) ?? []
  if ((word === undefined && name?.toLowerCase() !== 'z') || body.trim() === '') return null
  if (name === undefined && !/[\d+\-−*/^·√²³()]/u.test(body)) return null
  return { name: name ?? 'z', letters: ['x', 'y'], body, isSaid: word !== undefined }
}

const bySides =
  /^(.*\S)\s+(?:over|for|on|in)\s+([[(][^\][()]*[\])]|\S+\s+to\s+\S+)\s*(?:×|\\times|\bx\b|\bby\b|,|;|\band\b)\s*([[(][^\][()]*[\])]|\S+\s+to\s+\S+)\s*$/isu
const power = /^(.*\S)\s+(?:over|for|on|in)\s+([[(][^\][()]*[\])])\s*²\s*$/su

/**
 * Cuts a rectangle off the end of a surface: "over [−3, 3] × [0, 2]", "for -3 <= x <= 3, 0 <= y <= 2",
 * "over [0, 1]²"; where one side alone is said, the other one is the usual one.
 */
export function cutSides(
  text: string,
  letters: readonly [string, string],
): { formula: string; sides: readonly [SpanText, SpanText] | null } {
  const squared = power.exec(text)
  const same = squared && parseSpan(squared[2]!)
  if (same) return { formula: squared[1]!, sides: [same, same] }
  const boxed = bySides.exec(text)
  const [a, b] = boxed ? [parseSpan(boxed[2]!), parseSpan(boxed[3]!)] : []
  if (boxed && a && b) return { formula: boxed[1]!, sides: [a, b] }
  const named: Partial<Record<string, Partial<SpanText>>> = {}
  let rest = text
  for (let i = 0; i < letters.length; i++) {
    const cut = rest.replace(/(?:\s*[,;]|\s+and)?\s*$/u, '')
    const found = boundIn(cut)
    const letter =
      found &&
      letters.find((l) =>
        new RegExp(`[<≤>≥=\\s]\\s*${l}\\s*[<≤>≥]`, 'u').test(cut.slice(found.rest.length)),
      )
    if (!found || !letter || named[letter]) break
    named[letter] = found.span
    rest = found.rest
  }
  const usual = { from: '-5', to: '5' }
  if (Object.keys(named).length === 0) return { formula: text.trim(), sides: null }
  return {
    formula: rest.replace(/(?:\s*[,;]|\s+(?:for|and|with|where|on))?\s*$/u, '').trim(),
    sides: [
      { ...usual, ...named[letters[0]] },
      { ...usual, ...named[letters[1]] },
    ],
  }
}

/** The surface that words name, else the first one; null where there is none. */
export function surfaceMeant(words: string, { surfaces }: Request): SurfaceSaid | null {
  const named = surfaces.find(({ name }) =>
    new RegExp(`(?:^|\\b(?:of|to|for|surface)\\s+)${name}(?![\\p{L}])`, 'u').test(words),
  )
  return named ?? surfaces[0] ?? null
}

const pointSaid = /\(\s*([^,()]+(?:\([^()]*\)[^,()]*)?)\s*,\s*([^,()]+(?:\([^()]*\)[^,()]*)?)\s*\)/u

/** The point that words name as (x, y), with what is left of them; null where they name none. */
export function pointIn(words: string): { x: string; y: string; rest: string } | null {
  const found = pointSaid.exec(words)
  if (found) {
    const rest = words.slice(0, found.index) + words.slice(found.index + found[0].length)
    return { x: found[1]!.trim(), y: found[2]!.trim(), rest }
  }
  const apart = /\b\p{L}\s*=\s*(\S+?)\s*(?:,|and|,\s*and)\s*\p{L}\s*=\s*(\S+)/u.exec(words)
  if (!apart) return null
  const rest = words.slice(0, apart.index) + words.slice(apart.index + apart[0].length)
  return { x: apart[1]!, y: apart[2]!, rest }
}

/** Where a point stands that nobody has said: off the middle, where many a surface is level. */
const [likelyX, likelyY] = [0.6, 0.4]
const grid = 0.1

/** The sliders of a point: those that are there and called so, else new ones on the rectangle. */
export function pointFor(
  said: { x: string; y: string } | null,
  surface: SurfaceSaid,
  request: Request,
): { x: string; y: string; newSliders: NewSlider[] } {
  const all = [...request.sliders, ...request.otherSliders]
  if (said) {
    const [x, y] = [said.x, said.y].map((text, i) => newOnSide(text, surface, i as 0 | 1, request))
    return { x: said.x, y: said.y, newSliders: [x!, y!].flat() }
  }
  const taken = takenNames(request)
  const letters = ['a', 'b'].map((letter, i) => {
    if (all.includes(letter)) return { text: letter, sliders: [] }
    const free = taken.has(letter)
      ? (['p', 'q', 'u', 'v'].find((l, k) => k % 2 === i && !taken.has(l)) ?? letter)
      : letter
    return { text: free, sliders: newOnSide(free, surface, i as 0 | 1, request) }
  })
  return {
    x: letters[0]!.text,
    y: letters[1]!.text,
    newSliders: letters.flatMap(({ sliders }) => sliders),
  }
}

/** The slider for a letter that has no value yet: over the side of the rectangle. */
function newOnSide(text: string, surface: SurfaceSaid, axis: 0 | 1, request: Request): NewSlider[] {
  const fresh = placeSaid(text, {
    ...request,
    sliders: [...request.sliders, ...request.otherSliders],
  })
  if (fresh.sliders.length === 0) return []
  const [from, to] = surface.ends?.[axis] ?? [-5, 5]
  const share = axis === 0 ? likelyX : likelyY
  const value = Number((Math.round((from + (to - from) * share) / grid) * grid).toFixed(1))
  // Along the first axis it is a place; along the other it is none on the ruler of the lanes.
  return [{ name: text, place: axis === 0, value, from, to, step: to - from > 1 ? grid : 0.01 }]
}
