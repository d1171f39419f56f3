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
const project = (name) => ({
  displayName: name,
  rootDir: `./${name}`,
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.test.ts'],
  moduleNameMapper: { '^@yperkine/core$': '<rootDir>/../core/src/index.ts' },
  transform,
  transformIgnorePatterns,
  // Tests run in a sandbox in which each look at a global takes long; handed in, these do not.
  sandboxInjectedGlobals: [
    ...['Math', 'Number', 'BigInt', 'Array', 'Object', 'Map', 'Set', 'Infinity'],
    ...['Float64Array', 'Uint8Array', 'Int32Array', 'BigInt64Array', 'BigUint64Array', 'DataView'],
  ],
})

export default { projects: ['core', 'web', 'server'].map(project) }
