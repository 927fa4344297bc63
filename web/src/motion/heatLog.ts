/** Pairs of seconds and degrees, one a line; a decimal comma, tabs or semicolons, `1:30` for minutes. */
export function parseLog(text: string): { points: number[][] } | { error: string } {
  const points: number[][] = []
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue
    const parts = line
      .trim()
      .split(/[\t;]+|\s+/)
      .filter(Boolean)
    if (parts.length !== 2) return { error: `Line ${i + 1} does not hold two numbers.` }
    const [time, degrees] = [secondsOf(parts[0]!), Number(parts[1]!.replace(',', '.'))]
    if (!Number.isFinite(time) || !Number.isFinite(degrees)) return { error: `Line ${i + 1} does not hold two numbers.` }
    if (points.length > 0 && time <= points.at(-1)![0]!) return { error: `Line ${i + 1} is not later than the one before it.` }
    points.push([time, degrees])
  }
  return { points }
}

function secondsOf(text: string): number {
  const [minutes, seconds] = text.split(':')
  return seconds === undefined ? Number(text.replace(',', '.')) : 60 * Number(minutes) + Number(seconds.replace(',', '.'))
}
