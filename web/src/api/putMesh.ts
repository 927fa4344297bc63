import { answerOf, type MeshFacts } from './client'
import { uploadLimits } from './limits'
import { bytes, send } from './send'

/** Sends a mesh file; the server reads it, refuses what is none, and tells what each part looks like from above. */
export async function putMesh(file: File): Promise<MeshFacts[]> {
  const { mesh: most } = await uploadLimits()
  if (file.size > most) throw new Error(`This file has ${Math.ceil(file.size / 2 ** 20)} MB; at most ${most / 2 ** 20} MB are taken.`)
  return answerOf<MeshFacts[]>(await send('/api/meshes', { method: 'POST', ...bytes(file) }))
}
