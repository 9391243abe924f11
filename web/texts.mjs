// Collects every text of the page, by the file it stands in, and what the core says, by its folder (bin/lines), in
// src/texts/en.json. With --check it only says whether that is current.
import { execFileSync } from 'node:child_process'
import { readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { join, relative } from 'node:path'
import { parse as parseScript } from '@babel/parser'
import { parse } from '@vue/compiler-sfc'

const root = join(import.meta.dirname, 'src')
const catalogue = join(root, 'texts/en.json')
/** Keys of the core that are shown as words of their own: they stand in no call. */
const keys =
  'hard bite tender mush pale golden dark burnt raw soft crisp sharp right sweet small medium large calm breeze windy hob oven ' +
  'microwave egg sugar flour salt low middle high rectangle square round oval light standard generous tasting hearty tart ' +
  'savoury none foil lid parchment rim crumble cobbler pandowdy betty bar pie conventional fan camera file vegan filling ' +
  'topping base finish butter oil nothing shortening portions grams ounces inches none usual crumbly chilled mounds'
const calls = /(?<![\w.])(?:\$t|t|text)\(\s*(?=['"])/g
const files = readdirSync(root, { recursive: true })
  .filter((f) => /\.(vue|ts)$/.test(f) && !f.endsWith('.d.ts') && !f.startsWith('texts'))
  .sort()

/** The string literal that begins at a place of a source. */
function literalAt(source, at) {
  const quote = source[at]
  let end = at + 1
  while (source[end] !== quote) end += source[end] === '\\' ? 2 : 1
  const found = parseScript(`(${source.slice(at, end + 1)})`).program.body[0]
  return found.expression?.value ?? found.directives?.[0]?.value ?? ''
}

const repo = join(import.meta.dirname, '..')
const lines = JSON.parse(execFileSync(join(repo, 'bin/lines'), { cwd: repo, maxBuffer: 1 << 24 }))
const texts = Object.fromEntries(Object.entries(lines).map(([text, where]) => [text, new Set(where)]))
for (const k of keys.split(' ')) (texts[k] ??= new Set()).add('core')
for (const f of files) {
  const whole = readFileSync(join(root, f), 'utf8')
  const parts = f.endsWith('.vue') ? parse(whole).descriptor : undefined
  const sources = parts
    ? [parts.scriptSetup?.content, parts.template?.content.replaceAll('&quot;', '"')]
    : [whole]
  for (const s of sources)
    for (const c of s?.matchAll(calls) ?? []) {
      const text = literalAt(s, c.index + c[0].length)
      if (text) (texts[text] ??= new Set()).add(relative('.', f))
    }
}
const written =
  JSON.stringify(
    Object.fromEntries(
      Object.entries(texts)
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([text, where]) => [text, [...where]]),
    ),
    null,
    2,
  ) + '\n'
if (process.argv.includes('--check')) {
  if (readFileSync(catalogue, 'utf8') !== written) {
    console.error('src/texts/en.json is not what the page and the core say: run npm run texts')
    process.exit(1)
  }
} else writeFileSync(catalogue, written)
console.log(`${Object.keys(texts).length} texts`)
