import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { brotliCompress } from 'node:zlib'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'

const server = process.env.MORTAR_SERVER ?? 'http://127.0.0.1:5080'
const compress = promisify(brotliCompress)

/** Lays beside each script and style what it is compressed as far as it goes (RFC 7932): done once here, serving costs nothing. */
const compressed = (): Plugin => ({
  name: 'mortar-compressed',
  apply: 'build',
  async writeBundle({ dir = '' }, bundle) {
    const texts = Object.values(bundle).filter((part) => /\.(js|css)$/.test(part.fileName))
    await Promise.all(
      texts.map(async (part) =>
        writeFile(
          join(dir, `${part.fileName}.br`),
          await compress(part.type === 'chunk' ? part.code : part.source),
        ),
      ),
    )
  },
})

export default defineConfig({
  plugins: [react(), tailwindcss(), compressed()],
  build: { sourcemap: false, chunkSizeWarningLimit: 700 },
  server: {
    port: 5173,
    proxy: {
      '/api': server,
      '/openapi': server,
      '/b/': server,
      '/feed/': server,
      '/noticeboard': server,
      '/live': { target: server, ws: true },
    },
  },
})
