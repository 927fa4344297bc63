/** Places for labels as near to their own as they can be, in order, so far apart, between two ends; ascending in, ascending out. */
export function spread(wanted: readonly number[], apart: number, from: number, to: number): number[] {
  const places: number[] = []
  wanted.forEach((place, i) => {
    const latest = to - (wanted.length - 1 - i) * apart
    const earliest = i === 0 ? from : places[i - 1]! + apart
    places.push(Math.max(earliest, Math.min(place, latest)))
  })
  return places
}
