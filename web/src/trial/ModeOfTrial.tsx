import { useQuery } from '@tanstack/react-query'
import type { ModeKind } from '../api/client'
import { modeKinds, wordOf } from '../card/words'
import { DocumentOptions } from '../document/DocumentOptions'
import { documents } from '../document/documents'
import { useSchema } from '../document/schema'
import { NumberField } from '../units/NumberField'
import { plain } from '../units/format'
import { useTrial } from './TrialContext'

const about: Record<ModeKind, string> = {
  single: 'The first carriage prints; the second waits at its park.',
  copy: 'Both carriages print the same, side by side. The program holds the first part; the firmware makes the copy.',
  mirror: 'The second carriage prints the mirror image.',
  'two-material': 'The carriages take turns. Each part names its nozzle.',
}

/** In which mode of its two carriages the machine runs, and what belongs to the trial in it. */
export function ModeOfTrial() {
  const { trial, card, modePlan } = useTrial()
  const limits = useSchema('trial')
  const { data: filaments } = useQuery({ queryKey: ['list', 'filaments'], queryFn: () => documents.list('filaments') })
  const modes = card.document.modes ?? []
  if (modes.length === 0 || card.document.head?.carriages?.length !== 2) return null
  const use = trial.document.mode
  const second = use && use.kind !== 'single'
  return (
    <section aria-label="Mode">
      <div className="head-line between">
        <h2 className="caps">Mode</h2>
        <select
          className="plain-field chooser"
          aria-label="Mode"
          value={use?.kind ?? ''}
          onChange={(event) => trial.set('/mode', event.target.value ? { kind: event.target.value } : undefined)}
        >
          {!use && <option value="">single</option>}
          {modes
            .filter((mode) => use || mode.kind !== 'single')
            .map((mode) => (
              <option key={mode.kind} value={mode.kind}>
                {wordOf(modeKinds, mode.kind)}
              </option>
            ))}
        </select>
      </div>
      {use && <p className="quiet">{about[use.kind]}</p>}
      {second && (
        <div className="settings">
          {use.kind === 'copy' && (
            <label className="setting">
              <span>copy distance</span>
              <NumberField
                value={use.distance}
                label="copy distance"
                limits={limits('/mode/distance')}
                placeholder={modePlan ? plain(modePlan.proposedDistance) : ''}
                onChange={(value) => trial.set('/mode/distance', value)}
              />
            </label>
          )}
          <label className="setting">
            <span>second filament</span>
            <select
              className="plain-field"
              aria-label="second filament"
              value={trial.document.secondFilament ?? ''}
              onChange={(event) => trial.set('/secondFilament', event.target.value || undefined)}
            >
              <option value="">the same</option>
              <DocumentOptions of={filaments} />
            </select>
          </label>
          <label className="setting">
            <span title="auto: what the two filaments ask for">hotter by</span>
            <NumberField
              value={use.warmer}
              label="second nozzle hotter by"
              limits={limits('/mode/warmer')}
              placeholder="auto"
              onChange={(value) => trial.set('/mode/warmer', value)}
            />
          </label>
          <label className="setting">
            <span title="auto: as its filament asks">its fan</span>
            <NumberField
              value={use.fan}
              label="second nozzle's fan"
              limits={limits('/mode/fan')}
              percent
              placeholder="auto"
              onChange={(value) => trial.set('/mode/fan', value)}
            />
          </label>
        </div>
      )}
      {second && use.kind === 'copy' && modePlan && (
        <p className="quiet">
          Copies lie {plain(modePlan.distance)} mm apart; parts may be {plain(modePlan.widest, 1)} mm wide at that.
          {use.distance != null && use.distance !== modePlan.proposedDistance && (
            <>
              {' '}
              What lies on the bed asks for {plain(modePlan.proposedDistance)}.{' '}
              <button className="link" onClick={() => trial.set('/mode/distance', undefined)}>
                use it
              </button>
            </>
          )}
        </p>
      )}
    </section>
  )
}
