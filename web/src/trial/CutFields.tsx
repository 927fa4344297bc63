import { useEffect, useState } from 'react'
import type { CutQuestion } from '../api/client'
import { plain } from '../units/format'
import { NumberField } from '../units/NumberField'
import { useTrial } from './TrialContext'

const axes = { x: 'from the left', y: 'from the front', z: 'from below' } as const
const pegLimits = {
  count: { least: 1, most: 8, whole: true },
  diameter: { least: 0.5, most: 100 },
  depth: { least: 0.5, most: 200 },
  play: { least: 0, most: 2 },
} as const
type Along = keyof typeof axes

/** Where a part is cut in two, how its halves lie then, and what joins them. */
export function CutFields({ index, onDone }: { index: number; onDone: () => void }) {
  const { trial, meshes, hands, cutPlane, planCut } = useTrial('trial', 'meshes', 'hands', 'cutPlane', 'planCut')
  const part = trial.document.parts![index]!
  const size = meshes[index]?.size
  const plane = cutPlane?.part === index ? cutPlane : undefined
  const along = plane?.along ?? 'z'
  const mostAlong = (axis: Along) => size?.[{ x: 0, y: 1, z: 2 }[axis]]
  const most = mostAlong(along)
  const at = plane?.at
  const [onCutFaces, setOnCutFaces] = useState(false)
  const [pegs, setPegs] = useState<NonNullable<CutQuestion['pegs']>>()
  const [problem, setProblem] = useState<string>()
  const [busy, setBusy] = useState(false)
  const planInMiddle = (axis: Along) => {
    const room = mostAlong(axis)
    if (room !== undefined) planCut({ part: index, along: axis, at: Math.round(room * 5) / 10 })
  }
  const isKnown = size !== undefined
  useEffect(() => {
    if (isKnown) planInMiddle('z')
    return () => planCut(undefined)
    // once, when it is opened
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [index, isKnown])
  const cut = async () => {
    if (at === undefined) return
    setBusy(true)
    const why = await hands.cut(index, { along, at, onCutFaces, pegs: pegs ?? null })
    setBusy(false)
    setProblem(why)
    if (!why) onDone()
  }
  const peg = (name: 'diameter' | 'depth' | 'play' | 'count', label: string, unit?: string) => (
    <label className="small-field">
      {label}
      <NumberField
        value={pegs?.[name]}
        label={`${part.name} ${label}`}
        limits={{ label, unit, ...pegLimits[name] }}
        required
        onChange={(value) => setPegs({ ...pegs, [name]: value })}
      />
    </label>
  )
  return (
    <fieldset className="cut-fields">
      <legend className="quiet">cut in two</legend>
      <label className="small-field">
        measured
        <select
          className="plain-field"
          aria-label={`${part.name} cut measured`}
          value={along}
          onChange={(event) => planInMiddle(event.target.value as Along)}
        >
          {Object.entries(axes).map(([axis, said]) => (
            <option key={axis} value={axis}>
              {said}
            </option>
          ))}
        </select>
      </label>
      <label className="small-field">
        at{most === undefined ? '' : `, of ${plain(most, 1)}`}
        <NumberField
          value={at}
          label={`${part.name} cut at`}
          limits={{ label: 'cut', unit: 'mm', above: 0, most }}
          required
          onChange={(value) => value !== undefined && planCut({ part: index, along, at: value })}
        />
      </label>
      <label className="tick">
        <input type="checkbox" checked={onCutFaces} onChange={(event) => setOnCutFaces(event.target.checked)} /> halves on their cut faces
      </label>
      <label className="tick">
        <input
          type="checkbox"
          checked={pegs !== undefined}
          onChange={(event) => setPegs(event.target.checked ? { diameter: 4, depth: 6, play: 0.2, count: 2 } : undefined)}
        />{' '}
        pegs, with holes in both halves
      </label>
      {pegs && (
        <>
          {peg('count', 'pegs')}
          {peg('diameter', 'diameter', 'mm')}
          {peg('depth', 'deep', 'mm')}
          {peg('play', 'play', 'mm')}
        </>
      )}
      {(part.marks?.length ?? 0) > 0 && <p className="quiet open-note">Marked faces are not kept: the halves have others.</p>}
      {problem && (
        <p className="trouble open-note" role="alert">
          {problem}
        </p>
      )}
      <button className="key" disabled={busy} onClick={() => void cut()}>
        {busy ? 'cutting …' : 'cut it'}
      </button>
    </fieldset>
  )
}
