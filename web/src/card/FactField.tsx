import { valueAt, withValue } from '../document/pointer'
import { bedSize } from '../drawing/outline'
import { NumberField } from '../units/NumberField'
import { useCard } from './CardContext'
import { originPlace, originPlaces, resized, type Fact } from './facts'

/** The field in which a fact is typed or chosen. */
export function FactField({ fact }: { fact: Fact }) {
  const { document: card, set, change, limits, errors } = useCard()
  const value = valueAt(card, fact.pointer)
  const write = (next: unknown) =>
    fact.pointer.startsWith('/envelope/bed/')
      ? change((before) => resized(before, withValue(before, fact.pointer, next)), fact.pointer)
      : set(fact.pointer, next)

  switch (fact.kind) {
    case 'number':
      return (
        <NumberField
          value={value as number | undefined}
          onChange={write}
          limits={limits(fact.pointer)}
          label={fact.label}
          refused={errors[fact.pointer]}
          required={fact.needed}
          percent={fact.percent}
        />
      )
    case 'text':
      return (
        <input
          className="plain-field"
          aria-label={fact.label}
          value={(value as string | undefined) ?? ''}
          onChange={(event) => set(fact.pointer, event.target.value || undefined)}
        />
      )
    case 'origin':
      return <OriginField />
    default: {
      const choices =
        fact.kind === 'yes-no'
          ? [
              { value: 'true', label: 'yes' },
              { value: 'false', label: 'no' },
            ]
          : (fact.choices ?? [])
      return (
        <select
          className="plain-field"
          aria-label={fact.label}
          value={value === undefined || value === null ? '' : String(value)}
          onChange={(event) =>
            write(event.target.value === '' ? undefined : fact.kind === 'yes-no' ? event.target.value === 'true' : event.target.value)
          }
        >
          {(value === undefined || value === null || !fact.needed) && (
            <option value="">{fact.needed ? '? not answered' : 'not said'}</option>
          )}
          {choices.map((choice) => (
            <option key={choice.value} value={choice.value}>
              {choice.label}
            </option>
          ))}
        </select>
      )
    }
  }
}

function OriginField() {
  const { document: card, set, limits } = useCard()
  const { width, depth } = bedSize(card.envelope?.bed)
  const origin = card.envelope?.origin
  const place = originPlace(card)
  const free = Boolean(origin) && !place
  return (
    <span className="origin-field">
      <select
        className="plain-field"
        aria-label="origin"
        value={place?.value ?? (free ? 'free' : '')}
        disabled={!width || !depth}
        onChange={(event) => {
          const chosen = originPlaces(card).find((p) => p.value === event.target.value)
          if (chosen) set('/envelope/origin', chosen.at(width!, depth!))
          else set('/envelope/origin', { x: (origin?.x ?? 0) + 1, y: origin?.y ?? 0 })
        }}
      >
        {!origin && <option value="">{width && depth ? '? not answered' : 'after the size'}</option>}
        {originPlaces(card).map((choice) => (
          <option key={choice.value} value={choice.value}>
            {choice.label}
          </option>
        ))}
        <option value="free">elsewhere</option>
      </select>
      {free && (
        <span className="pair">
          <NumberField
            value={origin!.x}
            label="origin X"
            limits={limits('/envelope/origin/x')}
            required
            onChange={(x) => set('/envelope/origin/x', x)}
          />
          <NumberField
            value={origin!.y}
            label="origin Y"
            limits={limits('/envelope/origin/y')}
            required
            onChange={(y) => set('/envelope/origin/y', y)}
          />
        </span>
      )}
    </span>
  )
}
