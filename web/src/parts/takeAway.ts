import { api, ask, type FileFormat, type Problem, type WholeCard } from '@/api/client'

/** The forms in which a card can be given away. All but plain text keep every field of the card. */
export const forms: [FileFormat, string, string][] = [
  ['text', 'Text', 'to read and to paste'],
  ['html', 'Page', 'a web page with its recipe data inside'],
  ['jsonld', 'Data', 'recipe data (schema.org) as JSON'],
  ['csv', 'CSV', 'a table'],
]

/** Writes a card as a file and hands it to the browser. */
export async function takeAway(format: FileFormat, card: WholeCard): Promise<Problem | undefined> {
  const got = await ask(api.POST('/api/v1/export', { body: { format, card } }))
  if (!got.data) return got.problem
  const url = URL.createObjectURL(
    new Blob([got.data.content], { type: `${got.data.media_type};charset=utf-8` }),
  )
  const a = document.createElement('a')
  a.href = url
  a.download = got.data.filename
  a.click()
  setTimeout(() => URL.revokeObjectURL(url), 1000)
  return undefined
}
