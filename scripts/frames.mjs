import { rmSync } from 'node:fs'
import { startDatabase, temporaryFolder } from './database.mjs'
import { startServer } from './serverProcess.mjs'

const moves = 240
/** A shared machine is busy at times: several drags show how far the figures spread. */
const rounds = 5

/** Three lanes and ten lines of working, most of which hang on the place that is dragged. */
const lane = (order) => ({ kind: 'lane', id: `lane${order}`, curve: 'q', order, frame: null })
const study = {
  format: 2,
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

/** Ten thousand strips, the most that the deck allows. */
const manyStrips = {
  ...strips,
  title: 'Many strips',
  sliders: strips.sliders.map((s) => (s.name === 'n' ? { ...s, value: 10_000 } : s)),
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

/** What is dragged in which study, and how far to either side. */
const scenes = [
  ['Three lanes, ten lines', study, 'Place a', 150],
  // Beyond its track a slider does not move, and such moves would cost nothing.
  ['1,000 strips with slivers', strips, 's', 60],
  ['10,000 strips', manyStrips, 's', 60],
  ['Three lanes, a 200-row table and a 500-point trail', rates, 'Place a', 150],
]

export const quantile = (all, q) => [...all].sort((a, b) => a - b)[Math.floor(q * (all.length - 1))]

/** The least a page can do for a pointer: one circle follows it, by hand-written JavaScript. */
const referencePage = `<svg width="800" height="600"><circle id="c" r="8" cx="50" cy="50"/></svg>
<script>addEventListener('pointermove', (e) => document.getElementById('c').setAttribute('cx', e.clientX))</script>`

async function measureReference(browser) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.setContent(referencePage)
  const { work } = await measureDrag(page, 300, 50)
  await page.close()
  return work
}

/** Drags a handle to and fro once, so far to either side, and returns what was seen. */
export async function measureDrag(page, x, y, reach = 150) {
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
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    const open = async (made) => {
      const answer = await fetch(`${address}/api/studies`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ study: made }),
      })
      await page.goto(`${address}/studies/${(await answer.json()).id}`)
    }
    const line = (what, value) => console.log(`${what.padEnd(58)}${value.padStart(13)}`)
    const ms = (value) => `${value.toFixed(2)} ms`
    const slow = (all) => `${((100 * all.filter((t) => t > 25).length) / all.length).toFixed(1)} %`
    console.log(`\nFrames in headless Chromium, ${rounds} drags of ${moves} moves each`)
    console.log('Work for a move: handlers, rendering, committed frame')
    for (const [what, study, handle, reach] of scenes) {
      await open(study)
      const slider = page.getByRole('slider', { name: handle, exact: true })
      await slider.waitFor()
      const at = await slider.boundingBox()
      const [drags, bare] = [[], []]
      for (let round = 0; round < rounds; round++) {
        bare.push(await measureReference(browser))
        drags.push(await measureDrag(page, at.x + at.width / 2, at.y + 12, reach))
      }
      console.log(what)
      for (const [who, works] of [
        ['one circle follows the pointer', bare],
        ['the page', drags.map((drag) => drag.work)],
      ]) {
        const all = works.flat()
        line(`  ${who}: median`, ms(quantile(all, 0.5)))
        line(`  ${who}: 95th percentile`, ms(quantile(all, 0.95)))
        const each = works.map((work) => quantile(work, 0.95))
        line(`  ${who}: 95th, quietest drag`, ms(Math.min(...each)))
      }
      const latency = drags.flatMap((drag) => drag.latency)
      line('  pointer event to committed frame, 95th percentile', ms(quantile(latency, 0.95)))
      const intervals = drags.flatMap((drag) => drag.intervals)
      line('  frame intervals over 25 ms while dragging', slow(intervals))
    }
    await open(study)
    await page.getByRole('button', { name: 'Play a' }).click()
    await page.evaluate(watch)
    await page.waitForTimeout(4000)
    const playing = await page.evaluate(() => window.framesSeen.intervals)
    line('Frame intervals over 25 ms while playing', slow(playing))
    // What plays on would take the machine from what is measured next.
    await page.close()
    const { measureTurns } = await import('./turns.mjs')
    await measureTurns(browser, address, line)
  } finally {
    await browser.close()
    await server.stop()
    await db.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
