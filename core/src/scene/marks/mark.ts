import type { Layer, Sampled } from '../../statements/contract'
import type { Item } from '../items'

/** The function that a mark follows. */
export type Sample = (of: Sampled) => (x: number) => number

/** An item that lies where its mark does, if nothing else is said. */
export type PlainItem = Item extends infer I
  ? I extends Item
    ? Omit<I, 'layer'> & { layer?: Layer }
    : never
  : never
