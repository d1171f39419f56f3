import type { LaneScene, Scene } from '@yperkine/core'

type Axis = Pick<Scene, 'x' | 'width'>

/** What a pixel of the axis is worth. */
export const pixelWorth = ({ x, width }: Axis) => (x[1] - x[0]) / width

/** The value at a pixel of the axis. */
export const valueAtPixel = ({ x, width }: Axis, pixel: number) =>
  x[0] + (pixel / width) * (x[1] - x[0])

/** The pixel at which a value stands. */
export const pixelOfValue = ({ x, width }: Axis, value: number) =>
  ((value - x[0]) / (x[1] - x[0])) * width

/** The pixel at which a height stands in a lane, from its top. */
export const pixelOfHeight = ({ y, height }: Pick<LaneScene, 'y' | 'height'>, value: number) =>
  ((y[1] - value) / (y[1] - y[0])) * height

/** The value under a pointer, on an element that begins where the axis does. */
export const valueUnder = (axis: Axis, element: Element, clientX: number) =>
  valueAtPixel(axis, clientX - element.getBoundingClientRect().left)

/** The height under a pointer, on an element that begins at the top of a lane. */
export const heightUnder = (
  { y, height }: Pick<LaneScene, 'y' | 'height'>,
  element: Element,
  clientY: number,
) => y[1] - ((clientY - element.getBoundingClientRect().top) / height) * (y[1] - y[0])
