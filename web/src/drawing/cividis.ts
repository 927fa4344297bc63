/** Stops of the scale cividis, dark to light: perceptually even, and read alike by those who see few colours. */
const stops = ['#00224e', '#35456c', '#666970', '#948e77', '#c8b866', '#fee838']

/** How many colours of the scale are told apart. */
export const shades = 12

const channels = (hex: string) => [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16))

/** A colour of the scale: red, green, blue, 0 to 255. On paper its lightest end is left out, on slate its darkest. */
export function cividis(share: number, scheme: 'light' | 'dark'): [number, number, number] {
  const [from, to] = scheme === 'light' ? [0, 0.86] : [0.3, 1]
  const at = (from + (to - from) * Math.min(1, Math.max(0, share))) * (stops.length - 1)
  const i = Math.min(stops.length - 2, Math.floor(at))
  const [a, b] = [channels(stops[i]!), channels(stops[i + 1]!)]
  return a.map((value, k) => Math.round(value + (at - i) * (b[k]! - value))) as [number, number, number]
}

export const cssOf = ([r, g, b]: readonly [number, number, number]) => `rgb(${r} ${g} ${b})`
