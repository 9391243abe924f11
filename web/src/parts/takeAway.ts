import { api, ask, type FileFormat, type Problem, type WholeCard } from '@/api/client'
import { units } from './words'

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
  hand(new Blob([got.data.content], { type: `${got.data.media_type};charset=utf-8` }), got.data.filename)
  return undefined
}

/** Hands a file to the browser. */
function hand(file: Blob, name: string) {
  const url = URL.createObjectURL(file)
  const a = document.createElement('a')
  a.href = url
  a.download = name
  a.click()
  setTimeout(() => URL.revokeObjectURL(url), 1000)
}

/** The ticket with its method and its cutaway, on one page. */
export async function ticketPDF(card: WholeCard): Promise<Problem | undefined> {
  const got = await ask(
    api.POST('/api/v1/ticket.pdf', {
      body: { card, paper: units.lengths === 'in' ? 'letter' : 'a4' },
      parseAs: 'blob',
    }),
  )
  if (got.data) hand(got.data as unknown as Blob, `${card.name}.pdf`)
  return got.problem
}
