const transform = {
  '^.+\\.(t|j|mj)sx?$': [
    '@swc/jest',
    {
      jsc: {
        parser: { syntax: 'typescript', tsx: true },
        target: 'es2022',
        transform: { react: { runtime: 'automatic' } },
      },
      module: { type: 'commonjs' },
    },
  ],
}
// These packages are published as ES modules only.
const transformIgnorePatterns = ['/node_modules/(?!(d3-[a-z]+|internmap)/)']
const base = (name, folder) => ({
  displayName: name,
  rootDir: `./${folder}`,
  testEnvironment: 'node',
  moduleNameMapper: { '^@yperkine/core$': '<rootDir>/../core/src/index.ts' },
  transform,
  transformIgnorePatterns,
  // Tests run in a sandbox in which each look at a global takes long; handed in, these do not.
  sandboxInjectedGlobals: [
    ...['Math', 'Number', 'BigInt', 'Array', 'Object', 'Map', 'Set', 'Infinity'],
    ...['Float64Array', 'Uint8Array', 'Int32Array', 'BigInt64Array', 'BigUint64Array', 'DataView'],
  ],
})
const slow = '\\.slow\\.test\\.ts$'
const project = (name) => ({
  ...base(name, name),
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  testPathIgnorePatterns: ['/node_modules/', slow],
})

export default {
  // One worker for each core: the usual number leaves one idle, which on two is half of them.
  maxWorkers: '100%',
  // On a busy machine the first request to a server may wait for all that is loaded beside it.
  testTimeout: 30_000,
  projects: [
    project('core'),
    // What takes many seconds: thousands of made-up formulas and studies.
    { ...base('slow', 'core'), testMatch: ['<rootDir>/src/**/*.slow.test.ts'] },
    project('web'),
    // Parts of the page, on a page that is not drawn.
    {
      ...base('parts', 'web'),
      testMatch: ['<rootDir>/src/**/*.test.tsx'],
      testEnvironment: 'jsdom',
      sandboxInjectedGlobals: [],
      moduleNameMapper: {
        '^@yperkine/core$': '<rootDir>/../core/src/index.ts',
        '\\.css$': '<rootDir>/src/testing/noStyles.ts',
      },
    },
    project('server'),
    // What is said of the code: layers, manifests, the worked examples of the documents.
    {
      ...base('house', 'checks'),
      testMatch: ['<rootDir>/*.test.ts'],
      testPathIgnorePatterns: [slow],
    },
    { ...base('docs', 'checks'), testMatch: ['<rootDir>/*.slow.test.ts'] },
  ],
}
