import { rmSync } from 'node:fs'
import { startDatabase, temporaryFolder } from './database.mjs'
import { startServer } from './serverProcess.mjs'

const moves = 240
/** A shared machine is busy at times: several drags show how far the figures spread. */
const rounds = 5

/** Three lanes and ten lines of working, most of which hang on the place that is dragged. */
const lane = (order) => ({ id: `lane${order}`, curve: 'q', order, frame: null })
const study = {
  format: 1,
  title: 'Frames',
  about: '',
  variable: { letter: 't', name: 'time', unit: 'h' },
  decimals: 3,
  sliders: [{ name: 'a', value: 4, from: 0, to: 10, step: 0.01, place: true }],
  lines: [
    {
      kind: 'curve',
      id: 'l1',
      name: 'q',
      unit: 'ML/h',
      formula: '6 + 4 sin(0.9t) - 0.3t + t^2/(1 + t^2) - cos(2t) e^(-t/5)',
      span: { from: '0', to: '10' },
    },
    { kind: 'rate', id: 'l2', curve: 'q', order: 1 },
    { kind: 'rate', id: 'l3', curve: 'q', order: 2 },
    { kind: 'tangent', id: 'l4', curve: 'q', order: 0, place: 'a', extent: 'short' },
    { kind: 'tangent', id: 'l5', curve: 'q', order: 1, place: 'a', extent: 'whole' },
    { kind: 'tangent', id: 'l6', curve: 'q', order: 2, place: 'a', extent: 'short' },
    { kind: 'value', id: 'l7', curve: 'q', order: 0, place: 'a' },
    { kind: 'value', id: 'l8', curve: 'q', order: 1, place: 'a' },
    { kind: 'value', id: 'l9', curve: 'q', order: 2, place: 'a' },
    { kind: 'value', id: 'l10', curve: 'q', order: 0, place: 'a + 1' },
  ],
  lanes: [lane(0), lane(1), lane(2)],
  frame: null,
}

/** Runs in the page: notes each pointer event, the end of its frame, and every frame interval. */
function watch() {
  const seen = { latency: [], work: [], intervals: [] }
  let last = null
  const tick = (now) => {
    if (last !== null) seen.intervals.push(now - last)
    last = now
    if (watching) requestAnimationFrame(tick)
  }
  let watching = true
  const stop = new AbortController()
  window.stopWatching = () => {
    watching = false
    stop.abort()
  }
  requestAnimationFrame(tick)
  let began = 0
  let handled = 0
  window.addEventListener('pointermove', () => (began = performance.now()), {
    capture: true,
    signal: stop.signal,
  })
  // Last in line: the page's own handlers, and the rendering they caused, are done by now.
  window.addEventListener(
    'pointermove',
    (event) => {
      if (event.buttons === 0) return
      handled = performance.now() - began
      const before = handled
      requestAnimationFrame(() => {
        const frameBegan = performance.now()
        // A message posted in the frame is handled once the frame has been committed.
        const { port1, port2 } = new MessageChannel()
        port1.onmessage = () => {
          const now = performance.now()
          seen.latency.push(now - event.timeStamp)
          seen.work.push(before + now - frameBegan)
        }
        port2.postMessage(0)
      })
    },
    { signal: stop.signal },
  )
  window.framesSeen = seen
}

/** A thousand strips with slivers, cut anew with each move of s. */
const strips = {
  ...study,
  title: 'Strips',
  sliders: [
    { name: 'n', value: 1000, from: 1, to: 10000, step: 1, place: false },
    { name: 's', value: 0.5, from: 0, to: 1, step: 0.001, place: false },
  ],
  lines: [
    study.lines[0],
    {
      kind: 'area',
      id: 'l2',
      curve: 'q',
      order: 0,
      span: { from: '1', to: '9' },
      count: 'n',
      rule: 'position',
      position: 's',
      seed: 1,
      convergence: false,
      tolerance: '0.001',
    },
  ],
  lanes: [lane(0)],
}

/** Three lanes, a table of 200 rows and a trail of 500 points behind the tangent. */
const rates = {
  ...study,
  title: 'Rates',
  sliders: [{ name: 'a', value: 6, from: 0, to: 10, step: 0.01, place: true }],
  lines: [
    study.lines[0],
    { kind: 'tangent', id: 'l2', curve: 'q', order: 0, place: 'a', extent: 'short', trail: true },
    {
      kind: 'table',
      id: 'l3',
      curve: 'q',
      order: 0,
      span: { from: '0', to: '10' },
      step: '0.05',
      h: '0.001',
      columns: ['x', 'f(x)', 'central'],
    },
  ],
}

const quantile = (all, q) => [...all].sort((a, b) => a - b)[Math.floor(q * (all.length - 1))]

/** The least a page can do for a pointer: one circle follows it, by hand-written JavaScript. */
const referencePage = `<svg width="800" height="600"><circle id="c" r="8" cx="50" cy="50"/></svg>
<script>addEventListener('pointermove', (e) => document.getElementById('c').setAttribute('cx', e.clientX))</script>`

async function measureReference(browser) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.setContent(referencePage)
  await page.mouse.move(100, 50)
  await page.mouse.down()
  await page.evaluate(watch)
  for (let i = 0; i < moves; i++) await page.mouse.move(300 + 150 * Math.sin(i / 20), 50)
  const { work } = await page.evaluate(() => window.framesSeen)
  await page.close()
  return work
}

/** Drags a handle to and fro once, so far to either side, and returns what was seen. */
async function measureDrag(page, x, y, reach = 150) {
  await page.mouse.move(x, y)
  await page.mouse.down()
  for (let i = 0; i < 40; i++) await page.mouse.move(x + (i * reach) / 150, y)
  await page.evaluate(watch)
  for (let i = 0; i < moves; i++) await page.mouse.move(x + reach * Math.sin(i / 20), y)
  await page.mouse.move(x, y)
  await page.waitForTimeout(100)
  const seen = await page.evaluate(() => {
    window.stopWatching()
    return window.framesSeen
  })
  await page.mouse.up()
  return seen
}

/** Drags a flag and plays in headless Chromium, and prints how the frames fared. */
export async function measureFrames() {
  const { chromium } = await import('@playwright/test')
  const folder = temporaryFolder()
  const db = await startDatabase(folder, { flags: ['-c', 'fsync=off'] })
  const server = await startServer(db.url)
  const { address } = server
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking'],
  })
  try {
    const answer = await fetch(`${address}/api/studies`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ study }),
    })
    const { id } = await answer.json()
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${address}/studies/${id}`)
    const flag = page.getByRole('slider', { name: 'Place a', exact: true })
    await flag.waitFor()
    const box = await flag.boundingBox()
    const [x, y] = [box.x + box.width / 2, box.y + 12]
    const drags = []
    for (let round = 0; round < rounds; round++) drags.push(await measureDrag(page, x, y))
    const drag = {
      latency: drags.flatMap((d) => d.latency),
      work: drags.flatMap((d) => d.work),
      intervals: drags.flatMap((d) => d.intervals),
    }
    await page.getByRole('button', { name: 'Play a' }).click()
    await page.evaluate(watch)
    await page.waitForTimeout(4000)
    const playing = await page.evaluate(() => window.framesSeen.intervals)
    const more = {}
    for (const [what, other, handle, reach] of [
      // Beyond its track a slider does not move, and such moves would cost nothing.
      ['1,000 strips with slivers', strips, 's', 60],
      ['a 200-row table and a 500-point trail', rates, 'Place a', 150],
    ]) {
      const made = await fetch(`${address}/api/studies`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ study: other }),
      })
      await page.goto(`${address}/studies/${(await made.json()).id}`)
      const slider = page.getByRole('slider', { name: handle, exact: true })
      await slider.waitFor()
      const at = await slider.boundingBox()
      const seen = []
      for (let round = 0; round < 2; round++) {
        seen.push(...(await measureDrag(page, at.x + at.width / 2, at.y + 12, reach)).work)
      }
      more[what] = seen
    }
    const reference = await measureReference(browser)
    const slow = (all) => `${((100 * all.filter((t) => t > 25).length) / all.length).toFixed(1)} %`
    const line = (what, value) => console.log(`${what.padEnd(58)}${value.padStart(13)}`)
    const ms = (value) => `${value.toFixed(2)} ms`
    console.log(`\nFrames in headless Chromium: three lanes, ten lines, ${drag.work.length} moves`)
    line('reference: one circle follows the pointer, median', ms(quantile(reference, 0.5)))
    line('reference, 95th percentile', ms(quantile(reference, 0.95)))
    line('work for a move: handlers, rendering, frame; median', ms(quantile(drag.work, 0.5)))
    line('work for a move, 95th percentile', ms(quantile(drag.work, 0.95)))
    const each = drags.map((d) => quantile(d.work, 0.95))
    line(
      'the same, least and most of the drags',
      `${Math.min(...each).toFixed(1)}–${ms(Math.max(...each))}`,
    )
    line('pointer event to committed frame, 95th percentile', ms(quantile(drag.latency, 0.95)))
    line('frame intervals over 25 ms while dragging', slow(drag.intervals))
    line('frame intervals over 25 ms while playing', slow(playing))
    for (const [what, work] of Object.entries(more)) {
      line(`${what}: median`, ms(quantile(work, 0.5)))
      line(`${what}: 95th percentile`, ms(quantile(work, 0.95)))
    }
  } finally {
    await browser.close()
    await server.stop()
    await db.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
