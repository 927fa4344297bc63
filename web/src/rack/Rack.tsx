import { Button } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useDeferredValue, useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { sentenceOf } from '../api/client'
import { inField } from '../app/Shortcuts'
import { Shell } from '../app/Shell'
import { blankCard } from '../card/facts'
import { documents } from '../document/documents'
import { bedSize } from '../drawing/outline'
import { Hatches } from '../drawing/Hatches'
import { matches } from './search'
import { A4Sheet, Silhouette } from './Silhouette'
import './rack.css'

const tallest = 220
const mostPerMm = 0.7

/** Every card as a plan silhouette, all to one scale, beside an A4 outline. */
export function Rack() {
  const { data: cards, error } = useQuery({ queryKey: ['list', 'cards'], queryFn: () => documents.list('cards') })
  const [search, setSearch] = useState('')
  const sought = useDeferredValue(search)
  const go = useNavigate()
  const client = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()

  const start = async () => {
    try {
      const made = await documents.make('cards', blankCard)
      await client.invalidateQueries({ queryKey: ['list', 'cards'] })
      await go(`/cards/${made.id}`)
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
  }
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'n' && !inField(event) && !event.ctrlKey && !event.metaKey) void start()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })

  const shown = (cards ?? []).filter((card) => matches(card, sought))
  const deepest = Math.max(297, ...shown.map((card) => bedSize(card.card?.bed).depth ?? 0))
  const scale = Math.min(mostPerMm, tallest / deepest)

  return (
    <Shell
      trail={[]}
      title="Rack"
      state={<span className="state">{cards ? `${cards.length} ${cards.length === 1 ? 'card' : 'cards'}` : ''}</span>}
      tools={
        <input
          className="search"
          data-search
          value={search}
          placeholder="Find a machine, 180x160"
          aria-label="Find a machine"
          onChange={(event) => setSearch(event.target.value)}
        />
      }
    >
      <main className="page rack">
        <div className="head-line">
          <h1 className="caps">Cards</h1>
          <span className="quiet">all to one scale</span>
          <span style={{ flex: 1 }} />
          <Button onClick={() => void start()}>New card</Button>
        </div>
        {error && (
          <p className="trouble" role="alert">
            {sentenceOf(error)}
          </p>
        )}
        <Shared>
          <ul className="shelf" style={{ '--room': `${deepest * scale + 8}px` } as React.CSSProperties}>
            <li className="stand-in-scale">
              <A4Sheet scale={scale} />
              <span className="quiet">A4 sheet</span>
            </li>
            {shown.map((card) => (
              <Silhouette key={card.id} head={card} scale={scale} />
            ))}
          </ul>
        </Shared>
        {cards?.length === 0 && (
          <p className="nothing">No card yet. A card holds what a slicer must know of one machine; start one with a ruler at hand.</p>
        )}
        {cards && cards.length > 0 && shown.length === 0 && <p className="nothing">No card fits “{sought}”.</p>}
      </main>
    </Shell>
  )
}

/** Hatchings once for all silhouettes of the page. */
function Shared({ children }: { children: React.ReactNode }) {
  return (
    <Hatches
      frame={(defs) => (
        <svg width="0" height="0" style={{ position: 'absolute' }} aria-hidden>
          {defs}
        </svg>
      )}
    >
      {children}
    </Hatches>
  )
}
