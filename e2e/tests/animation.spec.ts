import type { Page } from '@playwright/test'
import { GifReader } from 'omggif'
import { readFileSync } from 'node:fs'
import { expect, test } from '../support/fixtures'
import { likeness, type Pixels } from '../support/pixels'

test.use({ ownPage: true })

/** Pictures are as large as the clip: its height without that of the ruler. */
const asLarge = { width: 480, height: 250, scale: 1 }
const [width, height] = [480, 300]
const [seconds, perSecond] = [2, 10]

async function saved(page: Page, press: () => Promise<void>) {
  const download = page.waitForEvent('download')
  await press()
  const got = await download
  return { name: got.suggestedFilename(), bytes: readFileSync(await got.path()) }
}

async function openPanel(page: Page) {
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: 'Animation' }).click()
  const panel = page.getByRole('dialog', { name: 'Animation' })
  for (const [label, value] of [
    ['Seconds', seconds],
    ['Width in pixels', width],
    ['Height in pixels', height],
  ] as const) {
    await panel.getByLabel(label).fill(String(value))
  }
  await panel.getByLabel('Frames a second').selectOption(String(perSecond))
  return panel
}

/** Every frame of a GIF as it is seen: what is not drawn anew stays. */
function framesOf(bytes: Buffer) {
  const reader = new GifReader(bytes)
  const rgba = new Uint8Array(reader.width * reader.height * 4)
  const frames: Pixels[] = []
  let delay = 0
  for (let k = 0; k < reader.numFrames(); k++) {
    reader.decodeAndBlitFrameRGBA(k, rgba)
    delay += reader.frameInfo(k).delay
    frames.push({ width: reader.width, height: reader.height, rgba: rgba.slice() })
  }
  return { frames, seconds: delay / 100, loops: reader.loopCount() }
}

test('a clip has every frame, and each is the picture at its value', async ({
  page,
  bench,
  context,
}) => {
  test.setTimeout(240_000)
  await page.addInitScript((settings) => {
    if (location.protocol === 'http:')
      localStorage.setItem('yperkine.picture', JSON.stringify(settings))
  }, asLarge)
  await bench.open('f(x) = x^2/3 - 1 for -3 <= x <= 3')
  await bench.say('tangent to f at x = a')
  const slider = bench.slider('a')
  // The picture as it is at the first, the middle and the last value of the way there and back.
  const picture = () =>
    saved(page, async () => {
      await page.getByRole('button', { name: 'Hand on' }).click()
      await page.getByRole('menuitem', { name: 'Picture as PNG' }).click()
    })
  await slider.focus()
  await page.keyboard.press('Home')
  const first = await picture()
  await slider.focus()
  await page.keyboard.press('End')
  const middle = await picture()
  const panel = await openPanel(page)
  const gif = await saved(page, () => panel.getByRole('button', { name: 'Save as GIF' }).click())
  const webm = await saved(page, () => panel.getByRole('button', { name: 'Save as WebM' }).click())
  expect([gif.name, webm.name]).toEqual([
    expect.stringMatching(/\.gif$/),
    expect.stringMatching(/\.webm$/),
  ])
  const { frames, seconds: long, loops } = framesOf(gif.bytes)
  expect([frames.length, long, loops]).toEqual([seconds * perSecond, seconds, 0])
  const blank = await context.newPage()
  const png = (of: typeof first) => ({ bytes: of.bytes, type: 'image/png' })
  expect(await likeness(blank, frames[0]!, png(first))).toBeGreaterThan(30)
  expect(await likeness(blank, frames[frames.length / 2]!, png(middle))).toBeGreaterThan(30)
  // There and back: the last frame is what the second one is.
  expect(await likeness(blank, frames.at(-1)!, frames[1]!)).toBeGreaterThan(60)
  expect(await likeness(blank, frames[0]!, png(middle))).toBeLessThan(30)
  const video = (at: number) => ({ bytes: webm.bytes, type: 'video/webm', at })
  expect(await likeness(blank, video(0.01), png(first))).toBeGreaterThan(30)
  expect(await likeness(blank, video(seconds / 2 + 0.01), png(middle))).toBeGreaterThan(30)
  expect(await likeness(blank, video(seconds - 0.05), frames.at(-1)!)).toBeGreaterThan(30)
  await blank.close()
})

test('a long clip shows how far it is and can be stopped; without an encoder there is a GIF', async ({
  page,
  bench,
}) => {
  await page.addInitScript(() => {
    Reflect.deleteProperty(window, 'VideoEncoder')
  })
  await bench.open('f(x) = sin x for 0 <= x <= 6')
  await page.getByRole('button', { name: 'Hand on' }).click()
  await page.getByRole('menuitem', { name: 'Animation' }).click()
  await expect(page.getByRole('dialog', { name: 'Animation' })).toContainText(
    'Nothing moves in this study yet',
  )
  await page.getByRole('button', { name: 'Done' }).click()
  await bench.say('tangent to f at x = a')
  const panel = await openPanel(page)
  await expect(panel).toContainText('This browser has no encoder of video: only a GIF can be made.')
  await expect(panel.getByRole('button', { name: 'Save as WebM' })).toHaveCount(0)
  await panel.getByLabel('Seconds').fill('60')
  await panel.getByRole('button', { name: 'Save as GIF' }).click()
  await expect(panel.getByRole('progressbar', { name: 'Frames made' })).toBeVisible()
  await expect(panel).toContainText(/\d+ of 600/)
  await panel.getByRole('button', { name: 'Stop' }).click()
  await expect(panel.getByRole('button', { name: 'Save as GIF' })).toBeVisible()
  await panel.getByRole('button', { name: 'Done' }).click()
  await expect(bench.line('Tangent to f at x = a')).toBeVisible()
})
