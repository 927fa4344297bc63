import type { FaceMark, TrialPart } from '../api/client'

/** What the pointer does on a part in space. */
export type Pointing = { does: 'choose' } | { does: 'stand' } | { does: 'paint'; mark: Paint; brush: number }

/** What is painted: support or a seam is wanted there, or is not, or all of it is left to the recipe again. */
export type Paint = 'support' | 'no support' | 'seam' | 'no seam' | 'none'

/** A part with faces painted; each face carries one mark of a use at most. */
export function painted(part: TrialPart, faces: ReadonlySet<number>, mark: Paint): TrialPart {
  const use = usedFor(mark)
  const left = (part.marks ?? []).flatMap((one) => {
    if (use && (one.use ?? 'support') !== use) return [one]
    const kept = one.faces.filter((face) => !faces.has(face))
    return kept.length > 0 ? [kept.length === one.faces.length ? one : { ...one, faces: kept }] : []
  })
  if (!use || faces.size === 0) return { ...part, marks: left }
  const wanted = mark === use
  const same = left.findIndex((one) => one.wanted === wanted && (one.use ?? 'support') === use)
  const marks: FaceMark[] =
    same < 0
      ? [...left, { use, wanted, faces: [...faces] }]
      : left.map((one, i) => (i === same ? { ...one, faces: [...one.faces, ...faces] } : one))
  return { ...part, marks }
}

function usedFor(mark: Paint): FaceMark['use'] {
  if (mark === 'none') return undefined
  return mark === 'seam' || mark === 'no seam' ? 'seam' : 'support'
}
