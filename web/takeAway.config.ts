import { createHash } from 'node:crypto'
import path from 'node:path'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import subsetFont from 'subset-font'
import { defineConfig, type Plugin } from 'vite'

/** Faces that a page to be taken away carries. */
const carried =
  /source-serif-4-latin-wght-(?:normal|italic)|source-sans-3-latin-wght-normal|KaTeX_(?:Main-Regular|Math-Italic|Size[1-4]-Regular)/
/** The same file again for letters alone: they are slanted in equations that are a single text. */
const ofEquations = /Equation Letters/
const plainLetters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz'

/** Letters, figures and signs of texts in the languages of the fonts' first block, and Greek. */
const kept = [
  ...Array.from({ length: 0x17f - 0x20 + 1 }, (_, i) => 0x20 + i),
  ...Array.from({ length: 0x3c9 - 0x391 + 1 }, (_, i) => 0x391 + i),
  ...[0x2013, 0x2014, 0x2018, 0x2019, 0x201c, 0x201d, 0x2022, 0x2026, 0x2032, 0x2033, 0x20ac],
  ...[0x2212, 0x2260, 0x2264, 0x2265, 0x2248, 0x221a, 0x221e, 0x222b, 0x2192, 0x2190, 0x00b7],
]
const keptText = String.fromCodePoint(...kept)
/** The page sets its words in these. */
const weights = { min: 400, max: 600 }
/** Slanted are names and letters alone. */
const keptSlanted = String.fromCodePoint(...kept.filter((c) => c < 0x7f || c > 0x2000))

/** Fonts as data in the style sheet, and of each only the smallest file. */
const fontsWithin = (): Plugin => ({
  name: 'fonts-within',
  enforce: 'post',
  async generateBundle(_options, bundle) {
    const bytes = new Map<string, Buffer>()
    for (const [name, item] of Object.entries(bundle)) {
      if (item.type !== 'asset' || !/\.(?:woff2?|ttf)$/.test(name)) continue
      const file = path.basename(name)
      if (file.endsWith('.woff2') && carried.test(file)) {
        const whole = Buffer.from(item.source)
        const letters = file.includes('italic') ? keptSlanted : keptText
        const options = { targetFormat: 'woff2', variationAxes: { wght: weights } } as const
        const isText = file.startsWith('source')
        bytes.set(file, isText ? await subsetFont(whole, letters, options) : whole)
        if (file.includes('serif') && file.includes('italic')) {
          bytes.set(`letters of ${file}`, await subsetFont(whole, plainLetters, options))
        }
      }
      delete bundle[name]
    }
    for (const item of Object.values(bundle)) {
      if (item.type !== 'asset' || !item.fileName.endsWith('.css')) continue
      const text = String(item.source)
      item.source = text.replace(/@font-face\s*\{[^}]*\}/g, (face) => {
        const found = /url\(["']?([^"')]*\.woff2)["']?\)/.exec(face)
        const file = found && path.basename(found[1]!)
        const isLetters = ofEquations.test(face)
        const source = file ? bytes.get(isLetters ? `letters of ${file}` : file) : undefined
        if (!source) return ''
        const data = `url(data:font/woff2;base64,${source.toString('base64')}) format("woff2")`
        return face.replace(/src:[^;}]*/, `src:${data}`)
      })
    }
  },
})

/** The script says its own hash, by which a page lets it and no other script run. */
const saysItsHash = (): Plugin => ({
  name: 'says-its-hash',
  enforce: 'post',
  generateBundle(_options, bundle) {
    const script = bundle['player.js']
    if (script?.type !== 'chunk') throw new Error('the player is no single script')
    // In a page nothing may look like the end of the script.
    script.code = script.code.replace(/<(?=\/script|!--|script)/gi, '\\x3c')
    const hash = createHash('sha256').update(script.code).digest('base64')
    this.emitFile({ type: 'asset', fileName: 'player.json', source: JSON.stringify({ hash }) })
  },
})

export default defineConfig({
  plugins: [react(), tailwindcss(), fontsWithin(), saysItsHash()],
  define: { 'process.env.NODE_ENV': '"production"' },
  resolve: {
    alias: [
      {
        find: /^\.\/startWorker$/,
        replacement: path.resolve(import.meta.dirname, 'src/takeAway/startWorker.ts'),
      },
      {
        find: /^\.\/SpaceGl$/,
        replacement: path.resolve(import.meta.dirname, 'src/takeAway/SpaceGl.tsx'),
      },
      {
        find: /^\.\/webgl$/,
        replacement: path.resolve(import.meta.dirname, 'src/takeAway/webgl.ts'),
      },
      {
        find: /^\.\/FormulaEditor$/,
        replacement: path.resolve(import.meta.dirname, 'src/takeAway/FormulaEditor.ts'),
      },
    ],
  },
  publicDir: false,
  build: {
    outDir: 'dist/takeAway',
    target: 'es2022',
    cssCodeSplit: false,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 4000,
    rollupOptions: {
      input: 'src/takeAway/main.tsx',
      output: {
        format: 'iife',
        codeSplitting: false,
        entryFileNames: 'player.js',
        assetFileNames: ({ names }) =>
          names[0]?.endsWith('.css') ? 'player.css' : '[name][extname]',
      },
    },
  },
})
