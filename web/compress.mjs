// Compresses the files of the built page next to them, as .br and .gz: the server answers with the one that a browser
// accepts, and compresses none of them itself.
import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'

const dist = new URL('dist', import.meta.url).pathname
const kinds = /\.(js|css|svg|html|json|webmanifest)$/
const smallest = 1024 // bytes

for (const entry of readdirSync(dist, { recursive: true })) {
  const file = join(dist, entry)
  if (!kinds.test(file) || statSync(file).size < smallest) continue
  const raw = readFileSync(file)
  const params = {
    [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY,
    [constants.BROTLI_PARAM_SIZE_HINT]: raw.length,
  }
  writeFileSync(`${file}.br`, brotliCompressSync(raw, { params }))
  writeFileSync(`${file}.gz`, gzipSync(raw, { level: 9 }))
}
