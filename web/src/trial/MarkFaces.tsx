import { useQuery } from '@tanstack/react-query'
import { api, dataOf, type FaceMark } from '../api/client'
import { plain } from '../units/format'
import { stanceOf } from './placement'
import { useTrial } from './TrialContext'
import { under } from '../open-document/pointer'

/** The undersides of a part as it stands; on each, support can be marked as wanted or unwanted. */
export function MarkFaces({ index }: { index: number }) {
  const { trial } = useTrial('trial')
  const part = trial.document.parts![index]!
  const query = stanceOf(part)
  const { data: undersides } = useQuery({
    queryKey: ['undersides', part.file, query],
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/meshes/{hash}/undersides', { params: { path: { hash: part.file }, query } })),
  })
  const marks = part.marks ?? []
  const same = (faces: readonly number[]) => (mark: FaceMark) =>
    mark.use !== 'seam' && mark.faces.length === faces.length && mark.faces[0] === faces[0]
  const mark = (faces: number[], wanted: string) =>
    trial.set(under('/parts', index, 'marks'), [
      ...marks.filter((m) => !same(faces)(m)),
      ...(wanted === '' ? [] : [{ wanted: wanted === 'wanted', faces }]),
    ])
  if (!undersides) return null
  return (
    <div className="mark-faces">
      {undersides.length === 0 && <p className="quiet">It has no flat underside above its floor.</p>}
      {undersides.length > 0 && (
        <table className="list">
          <thead>
            <tr>
              <th>Underside</th>
              <th className="number">Up</th>
              <th className="number">Leans</th>
              <th>Support</th>
            </tr>
          </thead>
          <tbody>
            {undersides.map((side, i) => {
              const found = marks.find(same(side.faces))
              return (
                <tr key={i}>
                  <td>
                    {plain(side.width, 1)} × {plain(side.depth, 1)}, {plain(side.area, 0)} mm²
                  </td>
                  <td className="number">{plain(side.height, 1)} mm</td>
                  <td className="number">{plain(side.lean, 0)}°</td>
                  <td>
                    <select
                      className="plain-field"
                      aria-label={`support of underside ${i + 1}`}
                      value={(found && (found.wanted ? 'wanted' : 'unwanted')) ?? ''}
                      onChange={(event) => mark(side.faces, event.target.value)}
                    >
                      <option value="">by its angle</option>
                      <option value="wanted">wanted</option>
                      <option value="unwanted">unwanted</option>
                    </select>
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
    </div>
  )
}
