import { api, dataOf } from './client'

let known: Promise<{ mesh: number; gcode: number }> | undefined

/** How many bytes of a kind of file are taken; asked once. */
export function uploadLimits() {
  known ??= api.GET('/api/limits').then(dataOf)
  known.catch(() => (known = undefined))
  return known
}

/** Holds a G-code file to what is taken; says so in a sentence before anything is sent. */
export async function holdGcode(file: File) {
  const { gcode: most } = await uploadLimits()
  if (file.size > most)
    throw new Error(`This file has ${Math.ceil(file.size / 2 ** 20)} MB; at most ${most / 2 ** 20} MB of G-code are taken.`)
}
