/** A number as it stands in a field or on the drawing: three decimals at most, none that say nothing. */
export function plain(value: number, decimals = 3): string {
  const text = value.toFixed(decimals)
  const trimmed = text.includes('.') ? text.replace(/\.?0+$/, '') : text
  return trimmed === '-0' ? '0' : trimmed
}

/** Filament by nozzle, in m; empty where there is one nozzle. */
export const byNozzle = (lengths: readonly number[] = []): string =>
  lengths.length < 2
    ? ''
    : lengths
        .map((length, tool) => ({ length, tool }))
        .filter(({ length }) => length > 0)
        .map(({ length, tool }) => `T${tool} ${plain(length / 1000, 2)} m`)
        .join(', ')

/** A time as people say it: `48 s`, `36 min 32 s`, `1 h 56 min`. */
export function duration(seconds: number): string {
  const whole = Math.round(seconds)
  if (whole < 60) return `${whole} s`
  if (whole < 3600) return `${Math.floor(whole / 60)} min ${whole % 60} s`
  return `${Math.floor(whole / 3600)} h ${Math.floor((whole % 3600) / 60)} min`
}

/** A moment of a run: `4:52`, `1:02:07`. */
export function clockTime(seconds: number): string {
  const whole = Math.floor(seconds)
  const tail = `${String(Math.floor((whole % 3600) / 60)).padStart(whole >= 3600 ? 2 : 1, '0')}:${String(whole % 60).padStart(2, '0')}`
  return whole >= 3600 ? `${Math.floor(whole / 3600)}:${tail}` : tail
}

/** The time of day of a moment, as `14:06`. */
export function timeOfDay(moment: string | number): string {
  return new Date(moment).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
}

/** The day of a moment, as `27 Nov 2026`. */
export function dayOf(moment: string | number): string {
  return new Date(moment).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
}

/** A moment with its day, as `27 Nov 2026, 14:05`. */
export const momentOf = (at: string): string => `${dayOf(at)}, ${timeOfDay(at)}`
