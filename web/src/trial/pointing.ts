import type { FaceMark, TrialPart } from '../api/client'

/** What the pointer does on a part in space. */
export type Pointing = { does: 'choose' } | { does: 'stand' } | { does: 'paint'; mark: Paint; brush: number }

/** What is painted: support is wanted there, is not, or is decided by the angle again. */
export type Paint = 'wanted' | 'unwanted' | 'none'

/** A part with faces painted; each face carries one mark at most. */
export function painted(part: TrialPart, faces: ReadonlySet<number>, mark: Paint): TrialPart {
  const left = (part.marks ?? []).flatMap((one) => {
    const kept = one.faces.filter((face) => !faces.has(face))
    return kept.length > 0 ? [kept.length === one.faces.length ? one : { ...one, faces: kept }] : []
  })
  if (mark === 'none' || faces.size === 0) return { ...part, marks: left }
  const wanted = mark === 'wanted'
  const same = left.findIndex((one) => one.wanted === wanted)
  const marks: FaceMark[] =
    same < 0
      ? [...left, { wanted, faces: [...faces] }]
      : left.map((one, i) => (i === same ? { ...one, faces: [...one.faces, ...faces] } : one))
  return { ...part, marks }
}
