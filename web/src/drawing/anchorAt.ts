/** How the text at a share of an axis is anchored, so that those at its ends stay within it. */
export function anchorAt(share: number): 'start' | 'middle' | 'end' {
  if (share === 0) return 'start'
  return share === 1 ? 'end' : 'middle'
}
