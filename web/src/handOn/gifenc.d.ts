declare module 'gifenc' {
  export type Palette = [number, number, number][]
  export interface FrameOptions {
    palette?: Palette
    /** In milliseconds; a GIF holds hundredths of a second. */
    delay?: number
    transparent?: boolean
    transparentIndex?: number
    /** 0 shows it for ever. */
    repeat?: number
    dispose?: number
  }
  export function GIFEncoder(): {
    writeFrame(index: Uint8Array, width: number, height: number, options: FrameOptions): void
    finish(): void
    bytes(): Uint8Array
  }
  export function quantize(rgba: Uint8Array | Uint8ClampedArray, most: number): Palette
  export function applyPalette(
    rgba: Uint8Array | Uint8ClampedArray,
    palette: Palette,
    format?: 'rgb565',
  ): Uint8Array
}
