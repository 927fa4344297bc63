import { useMemo } from 'react'
import { Color } from 'three'
import { useScheme } from '../drawing/useScheme'

const names = ['paper', 'sheet', 'ink', 'ink-2', 'hair', 'lit', 'madder', 'ochre', 'slate', 'moss'] as const
export type Ink = (typeof names)[number]
export type Inks = Record<Ink, Color>

const read = (): Inks => {
  const style = getComputedStyle(document.documentElement)
  return Object.fromEntries(names.map((name) => [name, rawColour(style.getPropertyValue(`--${name}`).trim())])) as Inks
}

/** A colour as it is to stand on the screen: nothing here is lit, so nothing is converted. */
export function rawColour(hex: string): Color {
  const value = parseInt(hex.slice(1), 16)
  return new Color((value >> 16) / 255, ((value >> 8) & 255) / 255, (value & 255) / 255)
}

/** The colours of the page's scheme, for what is drawn in space. */
export function useInks(): Inks {
  const scheme = useScheme()
  return useMemo(() => ({ scheme, inks: read() }), [scheme]).inks
}
