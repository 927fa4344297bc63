import { useQuery } from '@tanstack/react-query'
import { api, dataOf, type TrialPart } from '../api/client'
import { useSchema } from '../open-document/schema'
import { plain } from '../units/format'
import { NumberField } from '../units/NumberField'
import { CompareSides } from './CompareSides'
import { scaleOf } from './placement'
import { fellowsOf, scaled } from './together'
import { useTrial } from './TrialContext'
import { under } from '../open-document/pointer'

const names = ['x', 'y', 'z'] as const

/**
 * How a part stands and how large it is: scale by ratio or by size in mm, tilt, and the flat sides it can stand on. What
 * belongs together is scaled and tilted as one piece.
 */
export function Orientation({ index }: { index: number }) {
  const { trial, meshes, hands } = useTrial('trial', 'meshes', 'hands')
  const limits = useSchema('trial')
  const part = trial.document.parts![index]!
  const mesh = meshes[index]
  const scale = scaleOf(part)
  const query = { scaleX: scale.x, scaleY: scale.y, scaleZ: scale.z, mirrored: scale.mirrored }
  const { data: sides } = useQuery({
    queryKey: ['sides', part.file, query],
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/meshes/{hash}/sides', { params: { path: { hash: part.file }, query } })),
  })
  const even = scale.x === scale.y && scale.y === scale.z
  const together = fellowsOf(trial.document.parts ?? [], index).length > 1
  const change = (next: Partial<TrialPart>, step: string) =>
    trial.change((before) => ({ ...before, parts: before.parts?.map((p, i) => (i === index ? { ...p, ...next } : p)) }), `${step} ${index}`)
  const evenly = (to: number) =>
    trial.change(
      (before) => ({ ...before, parts: scaled(before.parts ?? [], index, to / scaleOf(before.parts![index]!).x) }),
      `scale ${index}`,
    )
  const untilted = !part.tilt || (part.tilt.x === 0 && part.tilt.y === 0)

  return (
    <div className="orientation">
      <label className="setting">
        <span>scale</span>
        <NumberField
          value={even ? scale.x : undefined}
          label={`${part.name} scale`}
          placeholder="uneven"
          percent
          limits={limits(under('/parts', index, 'scale', 'x'))}
          onChange={(value) => {
            if (value === undefined) return
            if (together) evenly(value)
            else change({ scale: { ...scale, x: value, y: value, z: value } }, 'scale')
          }}
        />
      </label>
      <button
        className="key"
        title="for a file that was drawn in inches"
        onClick={() => (together ? evenly(25.4) : change({ scale: { ...scale, x: 25.4, y: 25.4, z: 25.4 } }, 'scale'))}
      >
        it is in inches
      </button>
      {/* what belongs together keeps its shape: no side of one of them is sized by itself */}
      {(together ? [] : names).map((axis, i) => (
        <label key={axis} className="setting">
          <span>{axis.toUpperCase()} size</span>
          <NumberField
            value={mesh && untilted ? mesh.size[i] : undefined}
            label={`${part.name} size along ${axis.toUpperCase()}`}
            placeholder={untilted ? '' : 'tilted'}
            limits={{ label: 'size', unit: 'mm', above: 0, most: 4000 }}
            onChange={(size) =>
              mesh &&
              untilted &&
              size !== undefined &&
              change({ scale: { ...scale, [axis]: (scale[axis] * size) / mesh.size[i]! } }, `size ${axis}`)
            }
          />
        </label>
      ))}
      <label className="setting">
        <span>tilt X</span>
        <NumberField
          value={part.tilt?.x ?? 0}
          label={`${part.name} tilt about X`}
          limits={limits(under('/parts', index, 'tilt', 'x'))}
          required
          onChange={(x) => hands.tilt(index, { x: x ?? 0, y: part.tilt?.y ?? 0 })}
        />
      </label>
      <label className="setting">
        <span>tilt Y</span>
        <NumberField
          value={part.tilt?.y ?? 0}
          label={`${part.name} tilt about Y`}
          limits={limits(under('/parts', index, 'tilt', 'y'))}
          required
          onChange={(y) => hands.tilt(index, { x: part.tilt?.x ?? 0, y: y ?? 0 })}
        />
      </label>
      <label className="setting wide">
        <span>stand on</span>
        <select
          className="plain-field"
          aria-label={`${part.name} stands on`}
          value={sides?.findIndex((side) => side.tilt.x === (part.tilt?.x ?? 0) && side.tilt.y === (part.tilt?.y ?? 0)) ?? -1}
          onChange={(event) => {
            const side = sides?.[Number(event.target.value)]
            if (side) hands.tilt(index, { x: side.tilt.x ?? 0, y: side.tilt.y ?? 0 }, together)
          }}
        >
          <option value={-1}>{sides?.length === 0 ? 'it has no flat side' : 'as tilted'}</option>
          {sides?.map((side, i) => (
            <option key={i} value={i}>
              side {i + 1}: {plain(side.area / 100, 2)} cm² on the bed, {plain(side.height, 1)} mm high
            </option>
          ))}
        </select>
      </label>
      {!together && <CompareSides index={index} onTake={(tilt) => hands.tilt(index, { x: tilt?.x ?? 0, y: tilt?.y ?? 0 })} />}
    </div>
  )
}
