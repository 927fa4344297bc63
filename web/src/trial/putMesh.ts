import { answerOf, asker, type MeshFacts } from '../api/client'
import { uploadLimits } from '../api/limits'

/** Sends a mesh file; the server reads it, refuses what is none, and tells what each part looks like from above. */
export async function putMesh(file: File): Promise<MeshFacts[]> {
  const { mesh: most } = await uploadLimits()
  if (file.size > most) throw new Error(`This file has ${Math.ceil(file.size / 2 ** 20)} MB; at most ${most / 2 ** 20} MB are taken.`)
  return answerOf<MeshFacts[]>(
    await fetch('/api/meshes', { method: 'POST', body: file, headers: { 'content-type': 'application/octet-stream', ...asker } }),
  )
}
