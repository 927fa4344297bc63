import { useCard } from '../open-card/CardContext'
import { BothOutlines } from './BothOutlines'
import { Redline } from './Redline'
import { WhatFollows } from './WhatFollows'

/** Headings in the order of the sheet, by the members of a card. */
const headings: Record<string, string> = {
  envelope: 'Envelope',
  head: 'Head',
  motion: 'Motion',
  heat: 'Heat',
  firmware: 'Firmware',
  routines: 'Routines',
  modes: 'Modes',
}

/** Of a source, the heading of its fact. */
const memberOf = (path: readonly string[]) => (path[0] === 'sources' ? (path[1] ?? '').split('/')[1] : path[0]) ?? ''

/** A card beside another state of it or another card, with both outlines, and what follows from taking something over. */
export function RedlineTab() {
  const { id, document: mine, savedAt, change, limits, choices, clashes, setAside } = useCard()
  return (
    <Redline
      kind="cards"
      id={id}
      mine={mine}
      savedAt={savedAt}
      clashes={clashes.length > 0}
      setAside={setAside}
      change={change}
      limits={limits}
      choices={choices}
      headingOf={(path) => headings[memberOf(path)]}
      headings={[...Object.values(headings), 'The card itself']}
      beside={({ left, right, then, drawable }) => (
        <>
          {drawable ? <BothOutlines mine={left} theirs={right} /> : <p className="quiet">Not drawn: the kept draft is not whole.</p>}
          <WhatFollows id={id} mine={mine} then={then} />
        </>
      )}
    />
  )
}
