import { fileURLToPath } from 'node:url'
import react from '@vitejs/plugin-react'
import { constants } from 'node:zlib'
import { defineConfig } from 'vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
import { VitePWA } from 'vite-plugin-pwa'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig(({ isSsrBuild }) =>
  isSsrBuild
    ? {
        build: {
          ssr: true,
          rolldownOptions: {
            input: { main: here('server/main.ts'), thread: here('server/work/thread.ts') },
          },
          outDir: here('dist/server'),
          emptyOutDir: true,
          target: 'node20',
        },
      }
    : {
        root: here('web'),
        // The server puts the nonce of each page in its place.
        html: { cspNonce: '%NONCE%' },
        plugins: [
          react(),
          // Squeezed once and well, not at each asking; whoever takes no brotli gets gzip as it is asked for.
          compression({
            include: /\.(js|css|bin|svg)$/,
            algorithms: [
              defineAlgorithm('brotliCompress', {
                params: { [constants.BROTLI_PARAM_QUALITY]: 10 },
              }),
            ],
          }),
          VitePWA({
            strategies: 'injectManifest',
            srcDir: 'offline',
            filename: 'sw.ts',
            injectRegister: false,
            injectManifest: {
              globPatterns: ['**/*.{js,css,html,woff2,bin,png,svg}'],
              // The head is a megabyte.
              maximumFileSizeToCacheInBytes: 4_000_000,
            },
            manifest: {
              name: 'Slow Tide',
              short_name: 'Slow Tide',
              description: 'Reads, plans and runs services with a blade.',
              start_url: '/',
              display: 'standalone',
              background_color: '#F5F0E6',
              theme_color: '#2B7A82',
              icons: [
                { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
                { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
                { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
              ],
            },
          }),
        ],
        build: {
          outDir: here('dist/web'),
          emptyOutDir: true,
          target: 'es2022',
          manifest: true,
          rolldownOptions: {
            output: {
              chunkFileNames: ({ name }) => `assets/${name.split('~')[0]}-[hash].js`,
              // A slow line waits for each file: what the first page needs comes in one, what rooms share in few.
              codeSplitting: {
                groups: [
                  { name: 'base', tags: ['$initial'], priority: 1 },
                  {
                    name: 'shared',
                    test: /node_modules\/(?!three|echarts|zrender|@react-three)|\/(core|contract|web)\//,
                    minShareCount: 2,
                    entriesAware: true,
                    entriesAwareMergeThreshold: 4_000,
                  },
                ],
              },
            },
          },
          chunkSizeWarningLimit: 1200,
        },
        worker: { format: 'es' },
        server: {
          fs: { allow: [here('.')] },
          proxy: { '/api': 'http://127.0.0.1:4170' },
        },
      },
)
