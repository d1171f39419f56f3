import { readFileSync } from 'node:fs'
import path from 'node:path'
import { palettes, typeOf } from '@yperkine/core'

const css = readFileSync(path.join(__dirname, 'styles.css'), 'utf8')

/** The colour tokens of a block of the style sheet. */
function tokensOf(block: RegExp): Record<string, string> {
  const found = block.exec(css)?.[1] ?? ''
  return Object.fromEntries(
    [...found.matchAll(/--color-([a-z0-9-]+): (#[0-9a-f]{6});/g)].map((m) => [m[1]!, m[2]!]),
  )
}
const paper = tokensOf(/@theme \{([^}]*)\}/)
const looks = {
  paper,
  night: { ...paper, ...tokensOf(/data-look='night'\] \{([^}]*)\}/) },
  chalk: { ...paper, ...tokensOf(/data-look='chalk'\] \{([^}]*)\}/) },
}

/** Relative luminance and contrast ratio of WCAG 2.2. */
function luminance(colour: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const c = parseInt(colour.slice(i, i + 2), 16) / 255
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}
function contrast(a: string, b: string): number {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number]
  return (high + 0.05) / (low + 0.05)
}

test('the measure agrees with the published extremes', () => {
  // WCAG 2.2: black on white is 21 to 1; #767676 on white is the known grey just above 4.5.
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 6)
  expect(contrast('#767676', '#ffffff')).toBeCloseTo(4.54, 2)
})

describe.each(Object.entries(looks))('%s', (_look, tokens) => {
  const tints = ['rust-1', 'rust-2', 'ochre-1', 'ochre-2']
  const texts = ['ink', 'quiet', 'rust', 'ochre', 'brick', 'kelp', ...tints]
  const lines = [
    'kelp',
    'slate',
    'plum',
    'moss',
    'umber',
    'rust',
    'ochre',
    'brick',
    'edge',
    ...tints,
  ]
  test.each(texts.flatMap((t) => ['page', 'paper', 'chosen'].map((g) => [t, g] as const)))(
    'text in %s on %s is readable',
    (text, ground) => {
      const least = text === 'kelp' || text === 'ochre' ? (ground === 'page' ? 4.5 : 3) : 4.5
      expect(contrast(tokens[text]!, tokens[ground]!)).toBeGreaterThanOrEqual(least)
    },
  )
  test.each(lines)('a line in %s stands out from the page', (line) => {
    expect(contrast(tokens[line]!, tokens.page!)).toBeGreaterThanOrEqual(3)
  })
  test.each(['positive', 'negative'])('words in a %s band are readable', (tint) => {
    expect(contrast(tokens.ink!, tokens[tint]!)).toBeGreaterThanOrEqual(4.5)
  })
  test('words on filled buttons and flags are readable', () => {
    expect(contrast(tokens.page!, tokens.ink!)).toBeGreaterThanOrEqual(4.5)
    expect(contrast(tokens.page!, tokens.rust!)).toBeGreaterThanOrEqual(4.5)
    expect(contrast(tokens.page!, tokens.kelp!)).toBeGreaterThanOrEqual(4.5)
  })
})

test.each(['paper', 'night', 'chalk'] as const)(
  'in %s words are set as large as room is made for them',
  (look) => {
    const block =
      look === 'paper'
        ? /@theme \{[^}]*\}[^]*?--type: ([\d.]+)/
        : new RegExp(`data-look='${look}'\\] \\{[^}]*--type: ([\\d.]+)`)
    expect(Number(block.exec(css)?.[1] ?? 1)).toBe(typeOf(look))
  },
)

test.each(['paper', 'night', 'chalk'] as const)(
  'a picture in %s has the colours of the page',
  (look) => {
    const tokens = looks[look]
    const { inks, tints, ...palette } = palettes[look]
    const { curve1, curve2, curve3, curve4, curve5, place, span, ...others } = inks
    const names = ['kelp', 'slate', 'plum', 'moss', 'umber', 'rust', 'ochre']
    expect([curve1, curve2, curve3, curve4, curve5, place, span]).toEqual(
      names.map((n) => tokens[n]),
    )
    for (const [name, colour] of Object.entries(others))
      expect([name, colour]).toEqual([name, tokens[name]])
    const own: Record<string, string> = {
      ...{
        stripBelow: 'strip-below',
        over: 'brick',
        overFlat: 'over-flat',
        shortFlat: 'short-flat',
      },
    }
    for (const [name, colour] of Object.entries(palette)) {
      expect([name, colour]).toEqual([name, tokens[own[name] ?? name]])
    }
    for (const n of [1, 2] as const) {
      expect(tints[n]).toEqual({
        ...{ place: tokens[`rust-${n}`], span: tokens[`ochre-${n}`] },
        ...{ strip: tokens[`strip-${n}`], stripBelow: tokens[`strip-below-${n}`] },
      })
    }
  },
)
