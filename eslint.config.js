import js from '@eslint/js'
import accessible from 'eslint-plugin-jsx-a11y'
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
  ...['search', 'calculus', 'surfaces', 'tables', 'vocabulary', 'statements', 'study'],
  ...['results', 'requests', 'scene', 'pictures', 'scripting'],
]
const layerRules = layers.map((layer, i) => ({
  files: [`core/src/${layer}/**/*.ts`],
  ignores: ['**/*.test.ts', '**/testing.ts'],
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...notInCore.patterns,
          {
            regex: `^(?:\\.\\./)+(?:(?:${layers.slice(i + 1).join('|')}|api|listing|index)(?:/|$)|$)`,
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
    files: ['{core,web,server,e2e,checks}/**/*.{ts,tsx}'],
    extends: [typescript.configs.recommendedTypeCheckedOnly],
    languageOptions: { parserOptions: { projectService: true } },
    // Contexts, entries and functions are records of closures: taken out of them they still work.
    rules: { '@typescript-eslint/unbound-method': 'off' },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true },
      ],
      'no-console': 'error',
      'max-lines': ['error', 400],
      'max-lines-per-function': ['error', 120],
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
    plugins: { 'react-hooks': reactHooks, 'jsx-a11y': accessible },
    rules: {
      ...accessible.flatConfigs.recommended.rules,
      // A field takes the focus when someone has opened it, and nowhere else.
      'jsx-a11y/no-autofocus': 'off',
      // Escape closes a dialog, Enter leaves a group of fields, arrows move a divider.
      'jsx-a11y/no-noninteractive-element-interactions': ['error', { handlers: ['onClick'] }],
      // A divider is moved by keys, and rows that scroll are reached by them.
      'jsx-a11y/no-noninteractive-tabindex': ['error', { roles: ['separator', 'rowgroup'] }],
      'no-restricted-imports': ['error', notInWeb],
      'react-hooks/rules-of-hooks': 'error',
      'react-hooks/exhaustive-deps': 'error',
    },
  },
  { files: ['server/src/**/*.ts'], rules: { 'no-restricted-imports': ['error', notInServer] } },
  { files: ['core/bench/**/*.ts', 'server/bench/**/*.ts'], rules: { 'no-console': 'off' } },
  // The one place where the page leaves a trace of its own faults.
  { files: ['web/src/parts/trace.ts'], rules: { 'no-console': 'off' } },
  { files: ['server/src/main.ts'], rules: { 'no-console': 'off' } },
  {
    files: ['e2e/**/*.ts'],
    rules: { 'no-empty-pattern': 'off', 'no-restricted-imports': ['error', notInBrowserTests] },
  },
  // Tests read kept data and reach into answers, whose shapes they are there to check.
  {
    files: ['**/*.test.{ts,tsx}', '**/testing.ts', '**/testing/*.{ts,tsx}'],
    rules: {
      ...Object.fromEntries(
        ['argument', 'assignment', 'call', 'member-access', 'return'].map((what) => [
          `@typescript-eslint/no-unsafe-${what}`,
          'off',
        ]),
      ),
      '@typescript-eslint/require-await': 'off',
    },
  },
  {
    files: ['scripts/**/*.mjs', '*.js'],
    languageOptions: { globals: { ...globals.node, ...globals.browser } },
    rules: { 'no-console': 'off' },
  },
)
