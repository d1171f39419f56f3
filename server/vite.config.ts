import { defineConfig } from 'vite'

// The server is bundled so that it starts as plain JavaScript; packages stay outside.
export default defineConfig({
  build: { ssr: 'src/main.ts', outDir: 'dist', target: 'node20', emptyOutDir: true },
  ssr: { noExternal: ['@yperkine/core'] },
})
