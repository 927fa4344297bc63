/** What a person typed into a field for a number. */
export type Entry = { value: number; computed: boolean } | { error: string }

const perUnit: Record<string, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, '"': 25.4, '°': 1, deg: 1 }

/**
 * Reads `12,5`, `10 in`, `284-2*7`, `(3+4)/2`, `45 %`. Lengths come out in mm. A percent sign divides by 100.
 * A comma is a decimal comma. `computed` tells whether the value differs in form from what was typed, so that it is worth showing.
 */
export function parseEntry(text: string): Entry {
  const reader = new Reader(text.trim().replaceAll(',', '.').replaceAll('−', '-').replaceAll('×', '*').replaceAll('÷', '/'))
  try {
    const value = reader.sum()
    reader.end()
    if (!Number.isFinite(value)) return { error: 'This divides by zero.' }
    return { value: Math.round(value * 1e6) / 1e6, computed: reader.computed }
  } catch (problem) {
    return { error: problem instanceof Error ? problem.message : String(problem) }
  }
}

/** Recursive descent: sum = product ((+|-) product)*, product = factor ((*|/) factor)*, factor = number unit? | (sum) | -factor. */
class Reader {
  private at = 0
  private depth = 0
  computed = false

  constructor(private readonly text: string) {}

  sum(): number {
    let value = this.product()
    for (let sign = this.take('+-'); sign; sign = this.take('+-')) value += sign === '+' ? this.product() : -this.product()
    return value
  }

  end() {
    this.blanks()
    if (this.at < this.text.length) throw new Error(`"${this.text.slice(this.at, this.at + 12)}" is not understood here.`)
  }

  private product(): number {
    let value = this.factor()
    for (let sign = this.take('*/'); sign; sign = this.take('*/')) value = sign === '*' ? value * this.factor() : value / this.factor()
    return value
  }

  private factor(): number {
    if (this.take('-', false)) return -this.factor()
    if (this.take('(')) {
      if (++this.depth > 50) throw new Error('Too many brackets.')
      const value = this.sum()
      if (!this.take(')')) throw new Error('A bracket is not closed.')
      this.depth--
      return value
    }
    return this.number()
  }

  private number(): number {
    this.blanks()
    const found = /^(\d+\.?\d*|\.\d+)\s*(mm|cm|m|in|"|deg|°|%)?/i.exec(this.text.slice(this.at))
    if (!found)
      throw new Error(
        this.at >= this.text.length ? 'A number is missing here.' : `"${this.text.slice(this.at, this.at + 12)}" is not a number.`,
      )
    this.at += found[0].length
    const unit = found[2]?.toLowerCase()
    if (unit === '%') {
      this.computed = true
      return Number(found[1]) / 100
    }
    const factor = unit ? (perUnit[unit] ?? 1) : 1
    if (factor !== 1) this.computed = true
    return Number(found[1]) * factor
  }

  private take(signs: string, counts = true): string | undefined {
    this.blanks()
    const next = this.text[this.at]
    if (next === undefined || !signs.includes(next)) return undefined
    this.at++
    if (counts) this.computed = true
    return next
  }

  private blanks() {
    while (this.text[this.at] === ' ') this.at++
  }
}
