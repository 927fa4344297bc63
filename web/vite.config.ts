import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

const server = 'http://127.0.0.1:7420'
/** The server answers its own pages only: what these ask comes as from one of them. */
const asOwnPage = { target: server, changeOrigin: true, headers: { origin: server }, ws: true }

export default defineConfig({
  plugins: [react()],
  build: { chunkSizeWarningLimit: 800 },
  server: { host: '127.0.0.1', proxy: { '/api': asOwnPage, '/hubs': asOwnPage } },
  // generous: it ends only what hangs, on a machine that has much else to do too
  test: { css: true, include: ['src/**/*.test.ts'], testTimeout: 120_000 },
})
