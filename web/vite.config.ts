import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

const server = process.env.MORTAR_SERVER ?? 'http://127.0.0.1:5080'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { sourcemap: false, chunkSizeWarningLimit: 700 },
  server: {
    port: 5173,
    proxy: {
      '/api': server,
      '/openapi': server,
      '/live': { target: server, ws: true },
    },
  },
})
