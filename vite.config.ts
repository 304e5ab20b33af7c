import { fileURLToPath } from 'node:url'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig(({ isSsrBuild }) =>
  isSsrBuild
    ? {
        build: {
          ssr: here('server/main.ts'),
          outDir: here('dist/server'),
          emptyOutDir: true,
          target: 'node20',
        },
      }
    : {
        root: here('web'),
        plugins: [react()],
        build: {
          outDir: here('dist/web'),
          emptyOutDir: true,
          target: 'es2022',
          manifest: true,
          chunkSizeWarningLimit: 1200,
        },
        worker: { format: 'es' },
        server: {
          fs: { allow: [here('.')] },
          proxy: { '/api': 'http://127.0.0.1:4170' },
        },
      },
)
