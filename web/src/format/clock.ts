/** How long it is until something is due, in minutes: whole minutes, and seconds within the last one. */
export function timeLeft(minutes: number): string {
  const s = Math.round(minutes * 60)
  if (s > 59) return `${Math.ceil(s / 60)} min`
  if (s > 0) return `${s} s`
  return s > -60 ? 'now' : `${Math.round(-s / 60)} min ago`
}

/** The time of day of a moment. */
export const timeOf = (iso: string) =>
  new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
