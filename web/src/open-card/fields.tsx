import { useEffect, useRef, type ReactNode } from 'react'
import { isWithin, under, valueAt } from '../open-document/pointer'
import { NumberField } from '../units/NumberField'
import { useCard } from './CardContext'
import { yesNo, type Choice } from './words'

interface CardFieldProps {
  pointer: string
  label: string
  /** Tells it from others of the same label. */
  of?: string
  required?: boolean
  percent?: boolean
  /** What holds where nothing is typed. */
  proposed?: number
}

/** A number of the card, with its label above; what is pointed at lights up on the drawing. */
export function CardNumber({ pointer, label, of, required, percent, proposed }: CardFieldProps) {
  const { document: card, set, limits, errors, light } = useCard()
  const value = valueAt(card, pointer) as number | undefined
  return (
    <label className="small-field" data-pointer={pointer} onPointerEnter={() => light(pointer)} onFocus={() => light(pointer)}>
      {label}
      <NumberField
        value={value}
        label={of ? `${of}, ${label}` : label}
        limits={limits(pointer)}
        refused={errors[pointer]}
        required={required}
        percent={percent}
        placeholder={proposed === undefined ? undefined : String(proposed)}
        onChange={(next) => set(pointer, next)}
      />
    </label>
  )
}

interface CardChoiceProps extends CardFieldProps {
  /** What there is beside what the fact itself allows. */
  choices?: readonly Choice[]
  /** Whether the words stand for numbers. */
  numeric?: boolean
}

/** A word of the card, chosen from a list. */
export function CardChoice({ pointer, label, of, choices: given, required, numeric }: CardChoiceProps) {
  const { document: card, choices: choicesOf, set, light } = useCard()
  const choices = given ?? choicesOf(pointer)
  const value = valueAt(card, pointer)
  return (
    <label className="small-field" data-pointer={pointer} onFocus={() => light(pointer)}>
      {label}
      <select
        className="plain-field"
        aria-label={of ? `${of}, ${label}` : label}
        value={value === undefined || value === null ? '' : String(value)}
        onChange={(event) => set(pointer, asTyped(event.target.value, numeric))}
      >
        {(!required || value === undefined) && <option value="">not said</option>}
        {choices.map((choice) => (
          <option key={choice.value} value={choice.value}>
            {choice.label}
          </option>
        ))}
      </select>
    </label>
  )
}

function asTyped(value: string, numeric = false): string | number | boolean | undefined {
  if (value === '') return undefined
  if (numeric) return Number(value)
  return yesNo[value] ?? value
}

/** A line of text of the card. */
export function CardText({ pointer, label, of }: CardFieldProps) {
  const { document: card, set } = useCard()
  return (
    <label className="small-field wide" data-pointer={pointer}>
      {label}
      <input
        className="plain-field"
        aria-label={of ? `${of}, ${label}` : label}
        value={(valueAt(card, pointer) as string | undefined) ?? ''}
        maxLength={100}
        onChange={(event) => event.target.value && set(pointer, event.target.value)}
      />
    </label>
  )
}

interface CardListProps<T> {
  /** Where the list stands on the card. */
  pointer: string
  title: string
  letter?: string
  items: readonly T[]
  name: (item: T, index: number) => string
  about: (item: T, index: number) => string
  /** The pointer of the entry that is open. */
  open: string | undefined
  onOpen: (pointer: string | undefined) => void
  /** A new entry; nothing where no more can be added here. */
  add?: () => T
  fewest?: number
  children: (pointer: string, item: T, index: number) => ReactNode
}

/** A list of the card: a line an entry, the open one with its fields. */
export function CardList<T>({ pointer, title, letter, items, name, about, open, onOpen, add, fewest = 0, children }: CardListProps<T>) {
  const { set, lit, light } = useCard()
  const list = useRef<HTMLDivElement>(null)
  useEffect(() => {
    if (isWithin(open, pointer)) list.current?.querySelector('[aria-expanded=true]')?.scrollIntoView({ block: 'nearest' })
  }, [open, pointer])
  return (
    <div ref={list} data-pointer={pointer}>
      <div className="group-line">
        <h2 className="caps">
          {letter && <span className="letter">{letter} </span>}
          {title}
        </h2>
        <span className="quiet">
          {items.length === 0 ? 'none ' : ''}
          {add && (
            <button
              className="link"
              onClick={() => {
                set(pointer, [...items, add()])
                onOpen(under(pointer, items.length))
              }}
            >
              add
            </button>
          )}
        </span>
      </div>
      {items.map((item, i) => {
        const at = under(pointer, i)
        return (
          <div
            key={i}
            className={isWithin(lit, at) ? 'keep-out-row lit' : 'keep-out-row'}
            onPointerEnter={() => light(at)}
            onPointerLeave={() => light(undefined)}
          >
            <button className="keep-out-line" aria-expanded={open === at} onClick={() => onOpen(open === at ? undefined : at)}>
              <span className="twist" aria-hidden>
                {open === at ? '−' : '+'}
              </span>
              <span>{name(item, i)}</span>
              <span className="quiet">{about(item, i)}</span>
            </button>
            {open === at && (
              <div className="keep-out-fields">
                {children(at, item, i)}
                {items.length > fewest && (
                  <button
                    className="link quiet"
                    onClick={() => {
                      onOpen(undefined)
                      set(at, undefined)
                    }}
                  >
                    remove
                  </button>
                )}
              </div>
            )}
          </div>
        )
      })}
    </div>
  )
}
