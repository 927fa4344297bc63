import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [react()],
  build: { chunkSizeWarningLimit: 800 },
  server: { proxy: { '/api': 'http://127.0.0.1:7420' } },
  test: { environment: 'jsdom', css: true, include: ['src/**/*.test.ts'] },
})
