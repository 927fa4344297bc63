import { useState } from 'react'
import type { TrialPart } from '../api/client'
import { useDepartures } from '../open-document/description'
import { under } from '../open-document/pointer'
import { useSchema } from '../open-document/schema'
import { plain } from '../units/format'
import { NumberField } from '../units/NumberField'
import { CutFields } from './CutFields'
import { Departures } from './Departures'
import { MarkFaces } from './MarkFaces'
import { Orientation } from './Orientation'
import { fellowsOf, moved, turned } from './together'
import { tooWide } from './tooWide'
import { useTrial } from './TrialContext'

/** The chosen part in numbers, and what can be done to it. */
export function PartFields({ index }: { index: number }) {
  const departures = useDepartures('part')
  const { trial, card, meshes, arranging, hands, selected } = useTrial('trial', 'card', 'meshes', 'arranging', 'hands', 'selected')
  const origin = card.document.envelope?.origin
  const limits = useSchema('trial')
  const part = trial.document.parts![index]!
  const mesh = meshes[index]
  const [more, setMore] = useState(false)
  const [cutting, setCutting] = useState(false)
  const parts = trial.document.parts ?? []
  const together = fellowsOf(parts, index).length > 1
  const [marking, setMarking] = useState((part.marks?.length ?? 0) > 0)
  const [own, setOwn] = useState(Object.keys(part.settings ?? {}).length > 0)
  /** What is typed moves, lifts and turns all that belongs to the part. */
  const set = {
    x: (value: number) => moved(parts, [index], value - (part.x ?? 0), 0),
    y: (value: number) => moved(parts, [index], 0, value - (part.y ?? 0)),
    lift: (value: number) => moved(parts, [index], 0, 0, value - (part.lift ?? 0)),
    turn: (value: number) => turned(parts, meshes, index, value - (part.turn ?? 0)),
  }
  const field = (name: keyof typeof set, label: string) => (
    <label className="small-field">
      {label}
      <NumberField
        value={part[name] ?? 0}
        label={`${part.name} ${label}`}
        limits={limits(under('/parts', index, name))}
        required
        onChange={(value) => value !== undefined && trial.change((before) => ({ ...before, parts: set[name](value) }), `${name} ${index}`)}
      />
    </label>
  )
  const act = (parts: TrialPart[]) => trial.change((before) => ({ ...before, parts }))
  return (
    <div className="part-fields">
      <label className="small-field name">
        part {index + 1}
        <input
          className="plain-field"
          value={part.name}
          maxLength={200}
          onChange={(event) => event.target.value && trial.set(under('/parts', index, 'name'), event.target.value)}
        />
      </label>
      {field('x', 'X')}
      {field('y', 'Y')}
      {field('turn', 'turn')}
      {field('lift', 'lift')}
      {(card.document.head?.nozzles?.length ?? 0) > 1 && (
        <label className="small-field">
          nozzle
          <select
            className="plain-field"
            aria-label={`${part.name} nozzle`}
            value={part.nozzles?.join(' ') || card.document.head!.nozzles![0]!.id}
            onChange={(event) => trial.set(under('/parts', index, 'nozzles'), event.target.value.split(' '))}
          >
            {card.document.head!.nozzles!.map((nozzle) => (
              <option key={nozzle.id} value={nozzle.id}>
                {nozzle.id}
              </option>
            ))}
          </select>
        </label>
      )}
      <span className="part-keys">
        <button className="key" onClick={() => act(turned(parts, meshes, index, 15))}>
          +15°
        </button>
        <button className="key" onClick={() => void arranging.lay(fellowsOf(parts, index).map((i) => parts[i]!))}>
          copy
        </button>
        {!together && (
          <button className="key" onClick={() => void arranging.fill(index)}>
            fill the bed
          </button>
        )}
        <button className="key" onClick={() => hands.mirror(selected)}>
          mirror · m
        </button>
        <button className="key" aria-expanded={more} onClick={() => setMore(!more)}>
          stand, scale
        </button>
        <button className="key" aria-expanded={cutting} onClick={() => setCutting(!cutting)}>
          cut
        </button>
        <button className="key" onClick={() => void hands.split(index)}>
          split into bodies
        </button>
        {together && (
          <button className="key" onClick={() => hands.takeApart(index)}>
            take apart
          </button>
        )}
        {selected.length > 1 && (
          <button className="key" onClick={() => hands.putTogether(selected)}>
            put together
          </button>
        )}
        {(selected.length > 1 || together) && (
          <button className="key" onClick={() => void hands.join(selected)}>
            join
          </button>
        )}
        <button className="key" aria-expanded={marking} onClick={() => setMarking(!marking)}>
          mark faces
        </button>
        <button className="key" aria-expanded={own} onClick={() => setOwn(!own)}>
          own settings
        </button>
        <button className="key" onClick={() => hands.remove(selected)}>
          remove
        </button>
      </span>
      {origin && (
        <p className="quiet open-note mono">
          machine X {plain((part.x ?? 0) - origin.x)} Y {plain((part.y ?? 0) - origin.y)}
        </p>
      )}
      {(part.lift ?? 0) < 0 && (
        <p className="quiet open-note">Sunk by {plain(-(part.lift ?? 0))} mm: what lies below the bed is not printed.</p>
      )}
      {part.scale?.mirrored && <p className="quiet open-note">The mirror image of its file.</p>}
      {cutting && <CutFields index={index} onDone={() => setCutting(false)} />}
      {more && <Orientation index={index} />}
      {marking && <MarkFaces index={index} />}
      {own && (
        <Departures
          name={part.name}
          rows={departures}
          settings={part.settings ?? {}}
          onChange={(settings) => trial.set(under('/parts', index, 'settings'), settings)}
        />
      )}
      {mesh && (mesh.repeatedFaces ?? 0) > 0 && (
        <p className="quiet open-note">{mesh.repeatedFaces} faces stand in the file more than once; each was taken once.</p>
      )}
      {mesh && mesh.openEdges > 0 && (
        <p className="quiet open-note">{mesh.openEdges} open edges: the mesh has holes; what can be sliced is.</p>
      )}
      {mesh && (mesh.outlineBeyond ?? 0) > 0 && <p className="quiet open-note">{tooWide(mesh.outlineBeyond ?? 0)}</p>}
    </div>
  )
}
