import { OnPaper } from '../exchange/OnPaper'
import { SaveAsFile } from '../exchange/SaveAsFile'
import { AboutFields } from '../open-document/AboutFields'
import { useState } from 'react'
import type { Finding } from '../api/client'
import { isWithin, valueAt } from '../open-document/pointer'
import { SeverityMark } from '../findings/SeverityMark'
import { useCard } from '../open-card/CardContext'
import { FactField } from '../open-card/FactField'
import { asAsked, type Fact } from '../open-card/facts'
import { KeepOutRows } from './KeepOutRows'
import { PlateRows } from './PlateRows'
import { withSimpleBody } from './simpleBody'
import { SourceMark } from '../open-card/SourceMark'

/** The list of facts, each keyed by a letter to the drawing. */
export function Schedule({ findings }: { findings: Finding[] }) {
  const { id, document: card, facts: groups, set, change } = useCard()
  const [text, setText] = useState('')
  const [only, setOnly] = useState<'all' | 'findings' | 'unconfirmed'>('all')
  const isShown = (fact: Fact) =>
    (fact.when?.(card) ?? true) &&
    (text === '' || `${fact.letter ?? ''} ${fact.label} ${fact.hint ?? ''}`.toLowerCase().includes(text.toLowerCase())) &&
    (only !== 'findings' || findings.some((finding) => !finding.accepted && isWithin(finding.pointer, fact.pointer))) &&
    (only !== 'unconfirmed' || card.sources?.[fact.pointer]?.source === 'assumed')
  const filtered = text !== '' || only !== 'all'
  return (
    <section className="schedule" aria-label="Schedule">
      <div className="schedule-filter">
        <input
          className="plain-field"
          data-search
          value={text}
          placeholder="Find a fact"
          aria-label="Find a fact"
          onChange={(event) => setText(event.target.value)}
        />
        <select className="sorter" aria-label="Which facts" value={only} onChange={(event) => setOnly(event.target.value as typeof only)}>
          <option value="all">all</option>
          <option value="findings">with findings</option>
          <option value="unconfirmed">unconfirmed</option>
        </select>
      </div>
      <label className="fact name-row" data-pointer="/name">
        <span className="letter" />
        <span className="label">name</span>
        <input
          className="plain-field"
          value={card.name ?? ''}
          maxLength={120}
          placeholder="the machine's name"
          onChange={(event) => set('/name', event.target.value || undefined)}
        />
      </label>
      <AboutFields document={card} notes set={set} />
      <p className="sheet-ways">
        <SaveAsFile what={card.name || 'the card'} kind="cards" id={id} /> <OnPaper of={`/api/cards/${id}`} />
      </p>
      {groups.map((group) => {
        const facts = group.facts.filter(isShown)
        if (filtered && facts.length === 0) return null
        return (
          <section key={group.name} aria-label={group.name}>
            <div className="group-line">
              <h2 className="caps">{group.name}</h2>
              <span className="quiet">{summary(facts, card)}</span>
            </div>
            {facts.map((fact) => (
              <FactRow key={fact.pointer} fact={fact} findings={findings} />
            ))}
            {group.name === 'Head' && !filtered && (card.head?.bodies?.length ?? 0) === 0 && (
              <div className="fact">
                <span className="letter">M</span>
                <span className="label">body beside it</span>
                <button className="link" onClick={() => change(withSimpleBody)}>
                  add one
                </button>
              </div>
            )}
            {group.name === 'Envelope' && !filtered && <PlateRows />}
            {group.name === 'Envelope' && !filtered && <KeepOutRows findings={findings} />}
          </section>
        )
      })}
    </section>
  )
}

function summary(facts: Fact[], card: object): string {
  const known = facts.filter((fact) => isKnown(valueAt(card, fact.pointer)))
  const missing = facts.filter((fact) => fact.needed && !isKnown(valueAt(card, fact.pointer))).length
  return `${known.length} ${known.length === 1 ? 'fact' : 'facts'}${missing > 0 ? `, ${missing} missing` : ''}`
}

const isKnown = (value: unknown) => value !== undefined && value !== null && value !== ''

function FactRow({ fact: asked, findings }: { fact: Fact; findings: Finding[] }) {
  const { document: card, lit, light } = useCard()
  const fact = asAsked(asked, card)
  const own = findings.find((finding) => !finding.accepted && isWithin(finding.pointer, fact.pointer))
  const isLit = isWithin(lit, fact.pointer)
  return (
    <div
      className={isLit ? 'fact lit' : 'fact'}
      data-pointer={fact.pointer}
      onPointerEnter={() => light(fact.pointer)}
      onPointerLeave={() => light(undefined)}
      onFocus={() => light(fact.pointer)}
    >
      <span className="letter">{fact.letter}</span>
      <span className="label" title={fact.hint}>
        {fact.label}
      </span>
      <FactField fact={fact} />
      <SourceMark pointer={fact.pointer} />
      <span className="mark">{own && <SeverityMark severity={own.severity} />}</span>
    </div>
  )
}
