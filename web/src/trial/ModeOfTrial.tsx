import type { Card, ModeKind } from '../api/client'
import { useWords } from '../open-document/description'
import { useSchema } from '../open-document/schema'
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
  const words = useWords('card')
  const { asked, set, card, modePlan } = useTrial('asked', 'set', 'card', 'modePlan')
  const limits = useSchema('trial')
  const modes = card.document.modes ?? []
  if (modes.length === 0 || card.document.head?.carriages?.length !== 2) return null
  const use = asked.mode
  const second = use && use.kind !== 'single'
  return (
    <section aria-label="Mode">
      <div className="head-line between">
        <h2 className="caps">Mode</h2>
        <select
          className="plain-field chooser"
          aria-label="Mode"
          value={use?.kind ?? ''}
          onChange={(event) => set('/mode', event.target.value ? { kind: event.target.value } : undefined)}
        >
          {!use && <option value="">single</option>}
          {modes
            .filter((mode) => use || mode.kind !== 'single')
            .map((mode) => (
              <option key={mode.kind} value={mode.kind}>
                {words('/modes/0/kind', mode.kind)}
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
                onChange={(value) => set('/mode/distance', value)}
              />
            </label>
          )}
          <label className="setting">
            <span title="auto: what the two filaments ask for">hotter by</span>
            <NumberField
              value={use.warmer}
              label="second nozzle hotter by"
              limits={limits('/mode/warmer')}
              placeholder="auto"
              onChange={(value) => set('/mode/warmer', value)}
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
              onChange={(value) => set('/mode/fan', value)}
            />
          </label>
        </div>
      )}
      {second && use.kind !== 'two-material' && !hasOwnFan(card.document) && (
        <p className="quiet">
          The card names no fan of its own for the second nozzle: its share reaches the printer only where a start routine uses{' '}
          <span className="mono">mode.fan</span>.
        </p>
      )}
      {second && use.kind === 'copy' && modePlan && (
        <p className="quiet">
          Copies lie {plain(modePlan.distance)} mm apart; parts may be {plain(modePlan.widest, 1)} mm wide at that.
          {use.distance != null && use.distance !== modePlan.proposedDistance && (
            <>
              {' '}
              What lies on the bed asks for {plain(modePlan.proposedDistance)}.{' '}
              <button className="link" onClick={() => set('/mode/distance', undefined)}>
                use it
              </button>
            </>
          )}
        </p>
      )}
    </section>
  )
}

/** Whether the second nozzle names a fan with a number that the first one does not share: the program writes its share then. */
function hasOwnFan(card: Card): boolean {
  const [first, second] = card.head?.nozzles ?? []
  return (card.head?.fans ?? []).some(
    (fan) => fan.number != null && second?.fans?.includes(fan.id) && !first?.fans?.includes(fan.id) && ['part', 'side'].includes(fan.kind),
  )
}
