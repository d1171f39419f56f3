import type { Mark } from '../../statements/contract'
import type { Item } from '../items'
import { shadeItems, stripItems, topOf } from '../stripItems'
import { type Frame, toPixelX, toPixelY } from '../frame'
import type { PlainItem, Sample } from './mark'
import { type Points, dotItems, pointItems, usualPoints } from './points'
import { graphItems, levelItems } from './levels'
import { asymptoteItems, spotItems } from './spots'
import { chordItems, jointItems, stemItems } from './joints'
import { linePath, triangleItems } from './lines'
import { bodyItems } from './body'
import { familyItems, pathItems } from './family'
import { walkItems } from './walk'
import { noteItem } from '../notes'

/** Turns a mark of a line into what is drawn on its lane. */
export function markItems(
  mark: Mark,
  frame: Frame,
  key: string,
  sample: Sample,
  points: Points = usualPoints,
  /** Which way a body looks. */
  way: 1 | -1 = 1,
): Item[] {
  return plainItems(mark, frame, key, sample, points, way).map((item) => ({
    ...item,
    layer: item.layer ?? mark.layer,
  }))
}

function plainItems(
  mark: Mark,
  frame: Frame,
  key: string,
  sample: Sample,
  points: Points,
  way: 1 | -1,
): PlainItem[] {
  switch (mark.kind) {
    case 'level':
      return levelItems(mark, frame, key)
    case 'spot':
      return spotItems(mark, frame, key)
    case 'asymptote':
      return asymptoteItems(mark, frame, key)
    case 'points':
      return pointItems(mark, frame, key, points)
    case 'graph':
      return graphItems(mark, sample(mark.of), frame, key)
    case 'strips':
      return stripItems({ ...mark, f: sample(mark.of), curved: topOf(mark) }, frame, key)
    case 'shade':
      return shadeItems(
        { ...mark, f: sample(mark.of), g: mark.against ? sample(mark.against) : null },
        frame,
        key,
      )
    case 'body':
      return bodyItems(mark, frame, key, way)
    case 'family':
      return familyItems(mark, frame, key)
    case 'path':
      return pathItems(mark, frame, key)
    case 'walk':
      return walkItems(mark, frame, key, points)
    case 'starts':
      // They stand on the ruler.
      return []
    case 'trail':
      // Where it has been is not in the mark: the lane draws it.
      return []
    case 'note':
      return [noteItem(mark, frame, key)]
    default:
  }
  const x = toPixelX(frame, mark.x)
  const y = toPixelY(frame, mark.y)
  switch (mark.kind) {
    case 'dot':
      return dotItems(mark, frame, key, x, y, points)
    case 'chord':
      return chordItems(mark, frame, key, x, y)
    case 'joint':
      return jointItems(mark, frame, key, x, y)
    case 'stem':
      return stemItems(mark, frame, key, x, y, points)
    case 'line':
      return [
        {
          kind: 'path',
          key,
          d: linePath(mark, frame, x, y, points.length),
          ink: 'place',
          width: 2.5,
        },
      ]
    case 'riseOverRun':
      return triangleItems(mark, frame, key, x, y)
  }
}
