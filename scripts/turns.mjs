import path from 'node:path'
import { measureDrag, quantile } from './frames.mjs'
import { root } from './install.mjs'

const rounds = 3

const waves = {
  format: 2,
  title: 'Waves',
  about: '',
  variable: { letter: 'x', name: '', unit: '' },
  decimals: 3,
  sliders: [],
  lines: [
    {
      kind: 'surface',
      id: 'l1',
      surface: 'z',
      first: 'x',
      second: 'y',
      formula: 'sin(3x) cos(3y)',
      firstSpan: { from: '-3', to: '3' },
      secondSpan: { from: '-3', to: '3' },
    },
  ],
  lanes: [],
  frame: null,
}

/** The bare page as one script. */
async function bareScript() {
  const { build } = await import('vite')
  const made = await build({
    root: path.join(root, 'web'),
    configFile: false,
    logLevel: 'warn',
    build: {
      write: false,
      lib: { entry: 'bench/bareSurface.ts', formats: ['iife'], name: 'bare' },
    },
  })
  return [made].flat()[0].output[0].code
}

/** Turns a surface of as many triangles as 200 × 200 cells have, or more, beside a bare page in the same run. */
export async function measureTurns(browser, address, line) {
  const script = await bareScript()
  const answer = await fetch(`${address}/api/studies`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ study: waves }),
  })
  const { id } = await answer.json()
  const [own, bare] = [[], []]
  for (let round = 0; round < rounds; round++) {
    const alone = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await alone.setContent('<!doctype html><body style="margin:0"></body>')
    await alone.addScriptTag({ content: script })
    bare.push(await measureDrag(alone, 400, 300))
    await alone.close()
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${address}/studies/${id}`)
    await page.getByRole('slider', { name: 'Turn z' }).waitFor()
    await page.locator('canvas').waitFor()
    await page.waitForTimeout(1500)
    own.push(await measureDrag(page, 400, 300))
    await page.close()
  }
  console.log('\nA surface of 200 × 200 cells, or more, is turned')
  const median = (all, of) =>
    quantile(
      all.flatMap((one) => one[of]),
      0.5,
    )
  for (const [what, of] of [
    ['frame interval', 'intervals'],
    ['work for a move', 'work'],
  ]) {
    const [a, b] = [median(bare, of), median(own, of)]
    line(`  ${what}, three alone: median`, `${a.toFixed(2)} ms`)
    line(`  ${what}, the page: median`, `${b.toFixed(2)} ms, ${(b / a).toFixed(2)} ×`)
  }
}
