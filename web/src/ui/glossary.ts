import table from '@/../../docs/glossary.md?raw'

/** The terms of docs/glossary.md with their explanations, in plain text. */
const terms = new Map(
  table
    .split('\n')
    .map((line) => /^\| ([^|]+) \| ([^|]+) \|$/.exec(line))
    .filter((row) => row !== null)
    .map(([, term, text]) => [term!, text!]),
)

/** Returns the explanation of a term; a term that is not in the glossary is an error of the page. */
export function explanationOf(term: string): string {
  const text = terms.get(term)
  if (!text) throw new Error(`"${term}" is not in docs/glossary.md`)
  return text
}
