import {
  api,
  ask,
  type FileFormat,
  type Problem,
  type Settings,
  type Sheet,
  type Stage,
  type WholeCard,
} from '@/api/client'

/** The forms in which a card can be given away. All but plain text keep every field of the card. */
export const forms: [FileFormat, string, string][] = [
  ['text', 'Text', 'to read or paste'],
  ['html', 'Page', 'web page with recipe data'],
  ['jsonld', 'Data', 'recipe data (schema.org) as JSON'],
  ['csv', 'CSV', 'a table'],
]

/** The bake that a sheet or file is of: what steams off by it, and its stages. */
export interface Baked {
  steamed_off_g?: number
  stages?: Stage[]
  /** What will become of it, as it was answered. */
  verdict?: string
}

/** Writes a card as a file and hands it to the browser. */
export async function takeAway(
  format: FileFormat,
  card: WholeCard,
  baked?: Baked,
): Promise<Problem | undefined> {
  const got = await ask(api.POST('/api/v1/export', { body: { format, card, ...baked } }))
  if (!got.data) return got.problem
  hand(new Blob([got.data.content], { type: `${got.data.media_type};charset=utf-8` }), got.data.filename)
  return undefined
}

/** Hands a file to the browser. */
export function hand(file: Blob, name: string) {
  const url = URL.createObjectURL(file)
  const a = document.createElement('a')
  a.href = url
  a.download = name
  a.click()
  setTimeout(() => URL.revokeObjectURL(url), 1000)
}

/** A sheet of a card on one page: the ticket with its method, the card, or how it is cut. */
export async function printed(
  sheet: Sheet,
  card: WholeCard,
  settings: Settings | undefined,
  baked?: Baked,
): Promise<Problem | undefined> {
  const got = await ask(
    api.POST('/api/v1/print.pdf', {
      body: {
        sheet,
        card,
        settings,
        ...baked,
      },
      parseAs: 'blob',
    }),
  )
  if (got.data) hand(got.data, `${card.name}${sheet === 'ticket' ? '' : `, ${sheet}`}.pdf`)
  return got.problem
}
