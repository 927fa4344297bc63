import { useState } from 'react'
import type { Card, Position, SourceKind } from '../api/client'
import { isWithin, under, valueAt, withValue } from '../open-document/pointer'
import { bedSize } from '../drawing/outline'
import { NumberField } from '../units/NumberField'
import { useCard } from './CardContext'
import { bedOfShape, originPlaces, placeOf, resized, pointersOf, shapeOf, withWidth, type Fact } from './facts'
import { known } from './sources'
import { yesNo } from './words'

interface FactFieldProps {
  fact: Fact
  /** How a value typed here is known; noted as its source. */
  knownBy?: SourceKind
}

/** The field in which a fact is typed or chosen. */
export function FactField({ fact, knownBy }: FactFieldProps) {
  const { document: card, change, limits, errors } = useCard()
  const value = fact.pointer === '/envelope/bed/shape' ? shapeOf(card) : valueAt(card, fact.pointer)
  const write = (next: unknown) =>
    change((before) => {
      const after = written(before, fact.pointer, next)
      const sized = isWithin(fact.pointer, '/envelope/bed') ? resized(before, after) : after
      return knownBy ? known(sized, pointersOf(fact, after), knownBy) : sized
    }, fact.pointer)

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
          onChange={(event) => write(event.target.value || undefined)}
        />
      )
    case 'origin':
      return <PlaceField value={card.envelope?.origin} pointer={fact.pointer} label="origin" onChange={write} />
    case 'home':
      return <PlaceField value={card.envelope?.home} pointer={fact.pointer} label="home" onChange={write} />
    default: {
      const choices =
        fact.kind === 'yes-no'
          ? [
              { value: 'true', label: 'yes' },
              { value: 'false', label: 'no' },
            ]
          : (fact.choices ?? []).filter(({ value: choice }) => choice !== 'oval' || bedSize(card.envelope?.bed).width !== undefined)
      return (
        <select
          className="plain-field"
          aria-label={fact.label}
          value={value === undefined || value === null ? '' : String(value)}
          onChange={(event) => write(fact.kind === 'yes-no' ? yesNo[event.target.value] : event.target.value || undefined)}
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

/** A card with a fact written; the bed's facts bring others with them. */
function written(before: Card, pointer: string, next: unknown): Card {
  if (pointer === '/envelope/bed/shape')
    return withValue(before, '/envelope/bed', bedOfShape(before.envelope?.bed, next as string | undefined))
  const after = withValue(before, pointer, next)
  return pointer === '/envelope/bed/width' ? withWidth(before, after) : after
}

interface PlaceFieldProps {
  value: Position | null | undefined
  pointer: string
  label: string
  onChange: (place: Position | undefined) => void
}

/** A place on the bed: a corner, the centre, or anywhere by numbers. */
function PlaceField({ value, pointer, label, onChange }: PlaceFieldProps) {
  const { document: card, limits } = useCard()
  const { width, depth } = bedSize(card.envelope?.bed)
  const [elsewhere, setElsewhere] = useState(false)
  const place = elsewhere ? undefined : placeOf(card, value)
  const free = Boolean(value) && !place
  const unsaid = label === 'home' ? 'at the origin' : '? not answered'
  return (
    <span className="origin-field">
      <select
        className="plain-field"
        aria-label={label}
        value={place?.value ?? (free ? 'free' : '')}
        disabled={!width || !depth}
        onChange={(event) => {
          const chosen = originPlaces(card).find((p) => p.value === event.target.value)
          setElsewhere(event.target.value === 'free')
          if (event.target.value === '') onChange(undefined)
          else onChange(chosen ? chosen.at(width!, depth!) : (value ?? { x: 0, y: 0 }))
        }}
      >
        {(!value || label === 'home') && <option value="">{!width || !depth ? 'after the size' : unsaid}</option>}
        {originPlaces(card).map((choice) => (
          <option key={choice.value} value={choice.value}>
            {choice.label}
          </option>
        ))}
        <option value="free">elsewhere</option>
      </select>
      {free && value && (
        <span className="pair">
          <NumberField
            value={value.x}
            label={`${label} X`}
            limits={limits(under(pointer, 'x'))}
            required
            onChange={(x) => x !== undefined && onChange({ ...value, x })}
          />
          <NumberField
            value={value.y}
            label={`${label} Y`}
            limits={limits(under(pointer, 'y'))}
            required
            onChange={(y) => y !== undefined && onChange({ ...value, y })}
          />
        </span>
      )}
    </span>
  )
}
