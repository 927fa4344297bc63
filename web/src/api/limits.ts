import { api, dataOf } from './client'

let known: Promise<{ mesh: number; gcode: number }> | undefined

/** How many bytes of a kind of file are taken; asked once. */
export function uploadLimits() {
  known ??= api.GET('/api/limits').then(dataOf)
  known.catch(() => (known = undefined))
  return known
}
