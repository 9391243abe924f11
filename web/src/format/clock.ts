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

/** The next moment at which a clock shows an hour, as "19:00". */
export function hourOf(clock: string, now = new Date()): Date {
  const [hours = 0, minutes = 0] = clock.split(':').map(Number)
  const at = new Date(now)
  at.setHours(hours, minutes, 0, 0)
  if (at <= now) at.setDate(at.getDate() + 1)
  return at
}
