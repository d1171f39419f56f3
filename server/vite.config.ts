import { defineConfig } from 'vite'

// The server is bundled so that it starts as plain JavaScript; packages stay outside.
export default defineConfig({
  build: {
    ssr: true,
    rollupOptions: { input: { main: 'src/main.ts', drawingThread: 'src/drawingThread.ts' } },
    outDir: 'dist',
    target: 'node20',
    emptyOutDir: true,
  },
  ssr: { noExternal: ['@yperkine/core'] },
})
