import { Button } from '@mui/material'
import { useEffect, useRef, type MouseEvent } from 'react'
import { inField } from '../shell/inField'
import { plain } from '../units/format'
import { withEdits } from '../findings/edits'
import { PartFields } from './PartFields'
import { moved } from './together'
import { tooWide } from './tooWide'
import { useTrial } from './TrialContext'

/** The parts as a numbered bill, the chosen one with its place in numbers, and the verdict on each. */
export function PartsList() {
  const { trial, card, meshes, fits, chosen, selected, select, arranging, addFiles } = useTrial(
    'trial',
    'card',
    'meshes',
    'fits',
    'chosen',
    'selected',
    'select',
    'arranging',
    'addFiles',
  )
  const nozzles = card.document.head?.nozzles ?? []
  const several = nozzles.length > 1 ? nozzles[0]!.id : undefined
  const picker = useRef<HTMLInputElement>(null)
  const parts = trial.document.parts ?? []
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (inField(event) || event.ctrlKey || event.metaKey || event.altKey) return
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
                <tr
                  key={i}
                  className={selected.includes(i) ? 'lit' : undefined}
                  onClick={(event) => select(pickedWith(event, selected, i))}
                >
                  <td>
                    <button className="link" aria-label={`choose part ${i + 1}, ${part.name}`} aria-pressed={selected.includes(i)}>
                      {i + 1}
                    </button>
                  </td>
                  <td>
                    {part.name}
                    {part.assembly && <AssemblyMark word={part.assembly} />}
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

/** A click chooses one; with Shift or Ctrl one more, or one less. */
function pickedWith(event: MouseEvent, selected: readonly number[], index: number): readonly number[] {
  if (!event.shiftKey && !event.ctrlKey && !event.metaKey) return [index]
  return selected.includes(index) ? selected.filter((i) => i !== index) : [...selected, index]
}

/** Letters of the assemblies in the order in which they stand in the list. */
function AssemblyMark({ word }: { word: string }) {
  const { trial } = useTrial('trial')
  const words = [...new Set((trial.document.parts ?? []).flatMap((part) => part.assembly ?? []))]
  const letter = String.fromCharCode(65 + (words.indexOf(word) % 26))
  return (
    <span className="assembly-mark" title="belongs to the others of this letter: they keep their place to each other">
      {letter}
    </span>
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
  const cure = () => move && trial.change((before) => ({ ...before, parts: moved(before.parts ?? [], [index], move.x, move.y) }))
  return (
    <div className="violation" role="status">
      <div>
        {fit.violations.map((violation, i) => (
          <p key={i} data-violation={violation.kind}>
            {violation.message}
          </p>
        ))}
        {!move && fit.searched && !remedy && <p className="quiet">No move cures it.</p>}
        {(fit.outlineBeyond ?? 0) > 0 && <p className="quiet">{tooWide(fit.outlineBeyond ?? 0)}</p>}
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
