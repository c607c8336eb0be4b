// Makes known-passwords.bin anew: node make-known-passwords.mjs FOLDER, where FOLDER is the unpacked npm package zxcvbn 4.4.2
// (MIT), whose list of the passwords met most often it is made of. The file holds no words: of each the first eight bytes of
// its SHA-256, in order.
import { createHash } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { resolve } from 'node:path'

const { passwords } = createRequire(import.meta.url)(resolve(process.argv[2], 'lib/frequency_lists.js'))
const hashes = passwords
  .map((word) => createHash('sha256').update(word.toLowerCase()).digest().subarray(0, 8))
  .sort(Buffer.compare)
writeFileSync(new URL('known-passwords.bin', import.meta.url), Buffer.concat(hashes))
console.log(`${hashes.length} known passwords`)
