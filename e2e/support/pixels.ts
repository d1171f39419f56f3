import type { Page } from '@playwright/test'

/** Pixels row by row, four bytes each. */
export interface Pixels {
  width: number
  height: number
  rgba: Uint8Array
}

type Source = { bytes: Buffer; type: string; at?: number } | Pixels

/**
 * How alike two pictures are: the ratio of the largest to the usual difference of their colours, in
 * decibels (PSNR). A video is looked at `at` some seconds. Worked out in the browser, which reads what
 * it shows by itself.
 */
export function likeness(page: Page, a: Source, b: Source): Promise<number> {
  const packed = (source: Source) =>
    'rgba' in source
      ? { ...source, rgba: Buffer.from(source.rgba).toString('base64') }
      : { ...source, bytes: source.bytes.toString('base64') }
  return page.evaluate(
    async ([p, q]) => {
      const bytesOf = (text: string) => Uint8Array.from(atob(text), (c) => c.charCodeAt(0))
      const pixels = async (source: typeof p): Promise<ImageData> => {
        if ('rgba' in source) {
          const data = new ImageData(source.width, source.height)
          data.data.set(bytesOf(source.rgba))
          return data
        }
        const blob = new Blob([bytesOf(source.bytes)], { type: source.type })
        let shown: HTMLVideoElement | ImageBitmap
        if (source.type.startsWith('video')) {
          const video = document.createElement('video')
          video.muted = true
          video.src = URL.createObjectURL(blob)
          await new Promise((done) => video.addEventListener('loadeddata', done, { once: true }))
          // The place is reached before its picture is there: the picture is what is waited for.
          const shownThere = new Promise<void>((done) => {
            video.requestVideoFrameCallback(() => done())
          })
          video.currentTime = source.at ?? 0
          await shownThere
          shown = video
        } else shown = await createImageBitmap(blob)
        const [w, h] =
          'videoWidth' in shown
            ? [shown.videoWidth, shown.videoHeight]
            : [shown.width, shown.height]
        const canvas = new OffscreenCanvas(w, h)
        const context = canvas.getContext('2d')!
        context.drawImage(shown, 0, 0)
        return context.getImageData(0, 0, w, h)
      }
      const [one, other] = [await pixels(p), await pixels(q)]
      if (one.width !== other.width || one.height !== other.height) return -Infinity
      let sum = 0
      for (let i = 0; i < one.data.length; i++) {
        if (i % 4 !== 3) sum += (one.data[i]! - other.data[i]!) ** 2
      }
      const mean = sum / ((one.data.length * 3) / 4)
      return mean === 0 ? 100 : 10 * Math.log10(255 ** 2 / mean)
    },
    [packed(a), packed(b)] as const,
  )
}
