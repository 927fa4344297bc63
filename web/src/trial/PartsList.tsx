import { Button } from '@mui/material'
import { useEffect, useRef, useState } from 'react'
import type { Limits } from '../units/limits'
import { inField } from '../shell/Shortcuts'
import { useDepartures } from '../open-document/description'
import { useSchema } from '../open-document/schema'
import { plain } from '../units/format'
import { NumberField } from '../units/NumberField'
import { withEdits } from '../findings/edits'
import { Departures } from './Departures'
import { MarkFaces } from './MarkFaces'
import { Orientation } from './Orientation'
import { useTrial } from './TrialContext'
import { under } from '../open-document/pointer'

/** The parts as a numbered bill, the chosen one with its place in numbers, and the verdict on each. */
export function PartsList() {
  const { trial, card, meshes, fits, chosen, choose, arranging, addFiles } = useTrial(
    'trial',
    'card',
    'meshes',
    'fits',
    'chosen',
    'choose',
    'arranging',
    'addFiles',
  )
  const nozzles = card.document.head?.nozzles ?? []
  const several = nozzles.length > 1 ? nozzles[0]!.id : undefined
  const picker = useRef<HTMLInputElement>(null)
  const parts = trial.document.parts ?? []
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (inField(event) || event.ctrlKey || event.metaKey) return
      if (event.key === 'a') picker.current?.click()
      if (event.key === 'g') void arranging.arrange()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [arranging])
  return (
    <section aria-label="Parts">
      <div className="head-line between">
        <h2 className="caps">Parts</h2>
        <span className="head-links">
          {parts.length > 0 && (
            <button className="link quiet" onClick={() => void arranging.arrange()}>
              arrange · g
            </button>
          )}
          <button className="link quiet" onClick={() => picker.current?.click()}>
            add a file · a
          </button>
        </span>
        <input
          ref={picker}
          type="file"
          accept=".stl,.3mf,.obj,.amf"
          multiple
          hidden
          data-add-file
          onChange={(event) => {
            addFiles([...(event.target.files ?? [])])
            event.target.value = ''
          }}
        />
      </div>
      {parts.length > 0 && (
        <table className="list">
          <thead>
            <tr>
              <th>No.</th>
              <th>Part</th>
              <th className="number">Size</th>
              <th className="number">At</th>
              <th>Verdict</th>
            </tr>
          </thead>
          <tbody>
            {parts.map((part, i) => {
              const mesh = meshes[i]
              return (
                <tr key={i} className={chosen === i ? 'lit' : undefined} onClick={() => choose(i)}>
                  <td>
                    <button className="link" aria-label={`choose part ${i + 1}, ${part.name}`} aria-pressed={chosen === i}>
                      {i + 1}
                    </button>
                  </td>
                  <td>
                    {part.name}
                    {several && <span className="quiet"> · {part.nozzles?.[0] ?? several}</span>}
                  </td>
                  <td className="number">{mesh?.size.map((s) => plain(s, s < 1 ? 3 : 1)).join('×')}</td>
                  <td className="number">
                    {plain(part.x ?? 0, 1)}, {plain(part.y ?? 0, 1)}
                  </td>
                  <td data-verdict={i}>
                    <FitsWord fit={fits?.[i]?.fits} />
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
      {parts.map((_, i) => (
        <Violations key={i} index={i} />
      ))}
      {chosen !== undefined && parts[chosen] && <PartFields key={chosen} index={chosen} />}
    </section>
  )
}

function FitsWord({ fit }: { fit: boolean | undefined }) {
  if (fit === undefined) return '…'
  return fit ? <span className="fits">fits</span> : <span className="fits-not">does not fit</span>
}

function Violations({ index }: { index: number }) {
  const { fits, trial, recipe } = useTrial('fits', 'trial', 'recipe')
  const fit = fits?.[index]
  if (!fit || fit.fits) return null
  const move = fit.violations.find((violation) => violation.move)?.move
  const remedy = fit.violations.find((violation) => violation.remedy)?.remedy
  const cure = () =>
    move &&
    trial.change((before) => ({
      ...before,
      parts: before.parts?.map((p, i) => (i === index ? { ...p, x: settle((p.x ?? 0) + move.x), y: settle((p.y ?? 0) + move.y) } : p)),
    }))
  return (
    <div className="violation" role="status">
      <div>
        {fit.violations.map((violation, i) => (
          <p key={i} data-violation={violation.kind}>
            {violation.message}
          </p>
        ))}
        {!move && fit.searched && !remedy && <p className="quiet">No move cures it.</p>}
      </div>
      {remedy && recipe && (
        <Button size="small" onClick={() => recipe.change((before) => withEdits(before, remedy.edits))}>
          Skirt: {remedy.label}
        </Button>
      )}
      {move && (
        <Button size="small" onClick={cure}>
          Move {plain(move.length ?? Math.hypot(move.x, move.y), 1)} mm
        </Button>
      )}
    </div>
  )
}

const settle = (value: number) => Math.round(value * 1000) / 1000

function PartFields({ index }: { index: number }) {
  const departures = useDepartures('part')
  const { trial, card, choose, meshes, arranging } = useTrial('trial', 'card', 'choose', 'meshes', 'arranging')
  const origin = card.document.envelope?.origin
  const limits = useSchema('trial')
  const part = trial.document.parts![index]!
  const mesh = meshes[index]
  const [more, setMore] = useState(false)
  const [marking, setMarking] = useState((part.marks?.length ?? 0) > 0)
  const [own, setOwn] = useState(Object.keys(part.settings ?? {}).length > 0)
  const field = (name: 'x' | 'y' | 'turn', label: string, extra: Partial<Limits> = {}) => (
    <label className="small-field">
      {label}
      <NumberField
        value={part[name] ?? 0}
        label={`${part.name} ${label}`}
        limits={{ ...limits(under('/parts', index, name)), ...extra }}
        required
        onChange={(value) => trial.set(under('/parts', index, name), value)}
      />
    </label>
  )
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
        <button className="key" onClick={() => trial.set(under('/parts', index, 'turn'), ((part.turn ?? 0) + 15) % 360)}>
          +15°
        </button>
        <button className="key" onClick={() => void arranging.lay([part], false)}>
          copy
        </button>
        <button className="key" onClick={() => void arranging.fill(index)}>
          fill the bed
        </button>
        <button className="key" aria-expanded={more} onClick={() => setMore(!more)}>
          stand, scale
        </button>
        <button className="key" aria-expanded={marking} onClick={() => setMarking(!marking)}>
          mark faces
        </button>
        <button className="key" aria-expanded={own} onClick={() => setOwn(!own)}>
          own settings
        </button>
        <button
          className="key"
          onClick={() => {
            choose(undefined)
            trial.set(under('/parts', index), undefined)
          }}
        >
          remove
        </button>
      </span>
      {origin && (
        <p className="quiet open-note mono">
          machine X {plain((part.x ?? 0) - origin.x)} Y {plain((part.y ?? 0) - origin.y)}
        </p>
      )}
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
    </div>
  )
}
