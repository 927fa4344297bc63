import { useQuery } from '@tanstack/react-query'
import { useWords } from '../open-document/description'
import { DocumentOptions } from '../open-document/DocumentOptions'
import { documents } from '../open-document/documents'
import { plain } from '../units/format'
import { nozzlesInUse, printedBy, useLoaded } from './nozzlesInUse'
import { useTrial } from './TrialContext'

/** What is in each nozzle, and what it prints. Nothing where there is one nozzle. */
export function Nozzles() {
  const words = useWords('card')
  const { trial, card } = useTrial('trial', 'card')
  const { data: filaments } = useQuery({ queryKey: ['list', 'filaments'], queryFn: () => documents.list('filaments') })
  const loaded = useLoaded()
  const nozzles = card.document.head?.nozzles ?? []
  if (nozzles.length < 2) return null
  const used = nozzlesInUse(trial.document, card.document)
  const hold = (index: number, id: string, filament: string | undefined) =>
    trial.change((before) => {
      const others = Object.fromEntries(Object.entries(before.loaded ?? {}).filter(([nozzle]) => nozzle !== id))
      const after = { ...before, loaded: filament && index > 0 ? { ...others, [id]: filament } : others }
      if (index === 0) return { ...after, filament }
      return index === 1 ? { ...after, secondFilament: undefined } : after
    })
  return (
    <section aria-label="Nozzles">
      <div className="head-line between">
        <h2 className="caps">Nozzles</h2>
        <span className="quiet">{used.length === 1 ? 'one prints' : `${used.length} print`}</span>
      </div>
      <table className="list nozzles-of-trial">
        <thead>
          <tr>
            <th>Nozzle</th>
            <th>Holds</th>
            <th>Prints</th>
          </tr>
        </thead>
        <tbody>
          {nozzles.map((nozzle, i) => (
            <tr key={nozzle.id} className={used.includes(nozzle.id) ? undefined : 'idle'}>
              <td>
                {nozzle.id}{' '}
                <span className="quiet">
                  {nozzle.diameter == null ? 'bore ?' : `Ø ${plain(nozzle.diameter)}`}{' '}
                  {words('/head/nozzles/0/material', nozzle.material) ?? ''}
                </span>
              </td>
              <td>
                <select
                  className="plain-field"
                  aria-label={`filament in ${nozzle.id}`}
                  value={loaded.ids[nozzle.id] ?? ''}
                  onChange={(event) => hold(i, nozzle.id, event.target.value || undefined)}
                >
                  <option value="">{i === 0 ? 'none chosen' : `the same as ${nozzles[0]!.id}`}</option>
                  <DocumentOptions of={filaments} />
                </select>
              </td>
              <td className="quiet">{printedBy(trial.document, card.document, nozzle.id)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
