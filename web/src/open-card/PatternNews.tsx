import { Link } from 'react-router'
import { useCard } from './CardContext'
import { newerThan, redlineAgainst, usePatterns } from './patterns'

/** Says that the maker of the card's pattern has a newer version of it. */
export function PatternNews() {
  const { id, document: card } = useCard()
  const { data: patterns } = usePatterns()
  const newer = newerThan(card.pattern, patterns)
  if (!newer || !card.pattern) return null
  const { version, note } = newer.versions[0]!
  return (
    <section className="pattern-news" aria-label="Newer version of its pattern">
      <p>
        <strong>Version {version}</strong> of its pattern, <Link to={`/patterns/${newer.id}`}>{newer.name}</Link>, is there; it was made
        from version {card.pattern.version}.
      </p>
      {note && <p className="quiet">{note}</p>}
      <p>
        <Link to={redlineAgainst(id, card.pattern, newer)}>See what its maker changed</Link>
      </p>
    </section>
  )
}
