import { areasAsks } from './areas'
import type { Ask } from './ask'
import { motionAsks } from './motion'
import { othersAsks } from './others'
import { pointsAsks } from './points'
import { ratesAsks } from './rates'
import { tangentsAsks } from './tangents'
import { theoremsAsks } from './theorems'

export type { Ask, Asked } from './ask'

/** What an ask is told by: its phrases, word by word, and the words that may stand with them. */
export interface Told {
  ask: Ask
  phrases: readonly (readonly string[])[]
  also: ReadonlySet<string>
}

const listed = (text: string) =>
  text
    .split(',')
    .map((phrase) => phrase.trim().replace(/\s+/g, ' '))
    .filter((phrase) => phrase !== '')

/** Everything that can be asked for, the likelier of two equal ones first. */
export const asks: readonly Told[] = [
  ...tangentsAsks,
  ...ratesAsks,
  ...pointsAsks,
  ...areasAsks,
  ...theoremsAsks,
  ...motionAsks,
  ...othersAsks,
].map((ask) => ({
  ask,
  phrases: [...listed(ask.said).map((phrase) => phrase.split(' ')), ...(ask.bare ? [[]] : [])],
  also: new Set(listed(ask.also ?? '')),
}))

/** Every phrase that asks for something. */
export const askedPhrases: readonly string[] = [
  ...new Set(asks.flatMap(({ ask }) => listed(ask.said))),
]
