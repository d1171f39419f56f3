import js from '@eslint/js'
import reactHooks from 'eslint-plugin-react-hooks'
import globals from 'globals'
import typescript from 'typescript-eslint'

/** What core must not know: anything of the page, the server or this machine. */
const notInCore = {
  patterns: [
    {
      group: [
        'react',
        'react/*',
        'react-dom',
        'react-dom/*',
        'express',
        'sequelize',
        'node:*',
        'fs',
        'path',
        'crypto',
        '@yperkine/web',
        '@yperkine/server',
        '**/web/**',
        '**/server/**',
      ],
      message: 'core is pure: no interface, no network, no machine',
    },
  ],
}
const notInWeb = {
  patterns: [
    {
      group: ['@yperkine/server', '**/server/src/**', 'node:*'],
      message: 'imports run web → core ← server',
    },
  ],
}
const notInServer = {
  patterns: [
    {
      group: ['@yperkine/web', '**/web/src/**', 'react', 'react-dom'],
      message: 'imports run web → core ← server',
    },
  ],
}
const notInBrowserTests = {
  patterns: [
    {
      group: ['@yperkine/*', '**/core/src/**', '**/web/src/**', '**/server/src/**'],
      message: 'browser tests see the page alone',
    },
  ],
}
/** The layers of core from the ground up: each may import those before it. */
const layers = [
  ...['arithmetic', 'formula', 'functions', 'language', 'evaluate', 'algebra', 'features'],
  ...['search', 'calculus', 'tables', 'vocabulary', 'statements', 'study', 'results'],
  ...['requests', 'scene'],
]
const layerRules = layers.map((layer, i) => ({
  files: [`core/src/${layer}/**/*.ts`],
  ignores: ['**/*.test.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...notInCore.patterns,
          {
            regex: `^(?:\\.\\./)+(?:(?:${layers.slice(i + 1).join('|')}|api|index)(?:/|$)|$)`,
            message: `${layer} lies below that layer`,
          },
        ],
      },
    ],
  },
}))
const noGlobals = [...new Set([globals.browser, globals.node].flatMap(Object.keys))]
  .filter((name) => !(name in globals.es2021))
  .map((name) => ({ name, message: 'core uses the language alone' }))

export default typescript.config(
  { ignores: ['**/dist/', '**/node_modules/', 'test-results/', 'playwright-report/'] },
  js.configs.recommended,
  typescript.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      'no-console': 'error',
      // What is named so is filled elsewhere, by those who know the names.
      '@typescript-eslint/no-empty-object-type': ['error', { allowWithName: 'Names$' }],
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': ['error', notInCore],
      'no-restricted-globals': ['error', ...noGlobals],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'randomness needs a seed' },
        { object: 'Date', property: 'now', message: 'core knows no clock' },
      ],
    },
  },
  ...layerRules,
  {
    files: ['web/src/**/*.{ts,tsx}'],
    ignores: ['**/*.test.ts'],
    plugins: { 'react-hooks': reactHooks },
    rules: {
      'no-restricted-imports': ['error', notInWeb],
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
    },
  },
  { files: ['server/src/**/*.ts'], rules: { 'no-restricted-imports': ['error', notInServer] } },
  { files: ['core/bench/**/*.ts'], rules: { 'no-console': 'off' } },
  // The one place where the page leaves a trace of its own faults.
  { files: ['web/src/parts/trace.ts'], rules: { 'no-console': 'off' } },
  { files: ['server/src/main.ts'], rules: { 'no-console': 'off' } },
  {
    files: ['e2e/**/*.ts'],
    rules: { 'no-empty-pattern': 'off', 'no-restricted-imports': ['error', notInBrowserTests] },
  },
  {
    files: ['scripts/**/*.mjs', '*.js'],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
    rules: { 'no-console': 'off' },
  },
)
