/** A row of two texts side by side; a side that has nothing there is undefined. */
export interface Sides {
  left?: string
  right?: string
}

/** Two texts laid side by side by the longest run of lines that they have in common. */
export function sidesOf(mine: string, theirs: string): Sides[] {
  const [a, b] = [mine, theirs].map((text) => text.replace(/\n$/, '').split('\n')) as [string[], string[]]
  // common[i][j]: lines in common from i and from j on
  const common = Array.from({ length: a.length + 1 }, () => new Uint16Array(b.length + 1))
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      common[i]![j] = a[i] === b[j] ? common[i + 1]![j + 1]! + 1 : Math.max(common[i + 1]![j]!, common[i]![j + 1]!)
  const rows: Sides[] = []
  const [gone, come]: [string[], string[]] = [[], []]
  const flush = () => {
    for (let k = 0; k < Math.max(gone.length, come.length); k++) rows.push({ left: gone[k], right: come[k] })
    gone.length = come.length = 0
  }
  let [i, j] = [0, 0]
  while (i < a.length || j < b.length) {
    if (i < a.length && j < b.length && a[i] === b[j]) {
      flush()
      rows.push({ left: a[i++], right: b[j++] })
    } else if (j >= b.length || (i < a.length && common[i + 1]![j]! >= common[i]![j + 1]!)) gone.push(a[i++]!)
    else come.push(b[j++]!)
  }
  flush()
  return rows
}
