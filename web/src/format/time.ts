/** Minutes since midnight as a watch shows them, and back: nothing is worked out here. */
export function clockTime(minutes: number): string {
  const two = (value: number) => String(value).padStart(2, '0')
  return `${two(Math.floor(minutes / 60) % 24)}:${two(minutes % 60)}`
}

/** Minutes of a time such as 8:00; null where it is none. */
export function minutesOf(text: string): number | null {
  const found = /^\s*(\d{1,2})[:.](\d{2})\s*$/.exec(text)
  if (!found) return null
  const [hours, minutes] = [Number(found[1]), Number(found[2])]
  return hours < 24 && minutes < 60 ? hours * 60 + minutes : null
}

/** Minutes of several times with commas between; null where one of them is none. */
export function timesOf(text: string): number[] | null {
  const pieces = text.split(/,|;|\band\b/).filter((piece) => piece.trim())
  const found = pieces.map(minutesOf)
  return found.some((item) => item === null) ? null : (found as number[])
}

/** How long something takes: 45 min, 2 h 46 min. */
export function span(minutes: number): string {
  const whole = Math.floor(minutes)
  if (whole < 60) return `${whole} min`
  return `${Math.floor(whole / 60)} h${whole % 60 ? ` ${whole % 60} min` : ''}`
}

/** A length to the second, or below a minute to the tenth: 4.2 s, 1:05, 1:02:33. */
export function lasting(seconds: number): string {
  if (seconds < 60) return `${seconds.toFixed(1)} s`
  const whole = Math.round(seconds)
  const two = (value: number) => String(value).padStart(2, '0')
  const [hours, minutes] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60]
  return hours ? `${hours}:${two(minutes)}:${two(whole % 60)}` : `${minutes}:${two(whole % 60)}`
}

/** Seconds as they are counted beside a take that rolls: 0:47, 1:02:05. */
export function counted(seconds: number): string {
  const two = (value: number) => String(value).padStart(2, '0')
  const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60]
  return hours ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`
}

const MOMENT = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
})

/** Day and minute of something that was done, as this machine counts them: 27 Nov, 10:45. */
export const formatMoment = (when: string) => MOMENT.format(new Date(when))
