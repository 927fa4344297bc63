import { Button, Menu, MenuItem } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { Fragment, useDeferredValue, useEffect, useState, type CSSProperties, type ReactNode } from 'react'
import { Link } from 'react-router'
import { api, dataOf, sentenceOf } from '../api/client'
import { inField } from '../shell/inField'
import { Shell } from '../shell/Shell'
import { documents } from '../open-document/documents'
import { Hatches } from '../drawing/Hatches'
import { bedSize } from '../drawing/outline'
import { PacketDialog } from '../exchange/PacketDialog'
import { newerThan, patternOf, usePatterns } from '../open-card/patterns'
import { useCardStates } from '../open-card/useRevisions'
import { CardMenu } from './CardMenu'
import { useWords } from '../open-document/description'
import { found } from './search'
import { A4Sheet, PatternSilhouette, Silhouette } from './Silhouette'
import { orders } from './order'
import { useLook } from './useLook'
import { useStarts } from './useStarts'
import './rack.css'

const tallest = 200
const mostPerMm = 0.7

/** Every card as a plan silhouette, all to one scale, beside an A4 outline; the patterns on a shelf of their own. */
export function Rack() {
  const { data: cards, error } = useQuery({ queryKey: ['list', 'cards'], queryFn: () => documents.list('cards') })
  const { data: archived } = useQuery({ queryKey: ['list', 'cards', 'archived'], queryFn: () => documents.archived('cards') })
  const { data: patterns } = usePatterns()
  const { search, order, goes, away, makers, look } = useLook()
  const [open, setOpen] = useState<HTMLElement>()
  const { data: stock } = useQuery({ queryKey: ['matches'], queryFn: async () => dataOf(await api.GET('/api/matches')) })
  const row = stock && [...stock.filaments, ...stock.recipes].find(({ id }) => id === goes)
  const matchOf = (card: string) => (row && stock.cards.includes(card) ? row.matches[stock.cards.indexOf(card)] : undefined)
  const sought = useDeferredValue(search)
  const stateOf = useCardStates()
  const starts = useStarts()
  const [chosen, choose] = useState<ReadonlySet<string>>(new Set())
  const [saving, setSaving] = useState(false)

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'n' && !inField(event) && !event.ctrlKey && !event.metaKey) void starts.fromNothing()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })

  const words = useWords('card')
  const shown = found([...(cards ?? [])].sort(orders[order].compare), sought, words)
  const offered = (patterns ?? []).filter(({ listed }) => listed).map((one) => ({ ...one, about: `${one.about} ${one.sourceName}` }))
  const shownPatterns = found(offered, sought, words)
  const deepest = Math.max(297, ...shown.map((card) => bedSize(card.card?.bed).depth ?? 0))
  const scale = Math.min(mostPerMm, tallest / deepest)
  const shelf = (depth: number, by: number) => ({ '--room': `${depth * by + 8}px` }) as CSSProperties
  const patternScale = scale * 0.4

  return (
    <Shell
      trail={[]}
      title="Rack"
      state={
        <span className="state">
          {cards ? `${cards.length} ${cards.length === 1 ? 'card' : 'cards'}` : ''}
          {patterns ? `, ${offered.length} patterns` : ''}
        </span>
      }
      tools={
        <input
          className="search"
          data-search
          value={search}
          placeholder="Find a machine, 180x160"
          aria-label="Find a machine"
          onChange={(event) => look({ find: event.target.value })}
        />
      }
    >
      <main className="page rack">
        <div className="head-line">
          <h1 className="caps">Cards</h1>
          <span className="quiet">all to one scale</span>
          <span style={{ flex: 1 }} />
          <Link to="/stock">Filaments and recipes</Link>
          <Link to="/bin">Bin and archive</Link>
          <Link to="/take-in">Take in</Link>
          <button className="link" onClick={() => setSaving(true)}>
            {chosen.size === 0 ? 'Save all …' : `Save ${chosen.size} …`}
          </button>
          <label className="quiet">
            goes with{' '}
            <select className="sorter" aria-label="Goes with" value={goes} onChange={(event) => look({ with: event.target.value })}>
              <option value="">…</option>
              {stock &&
                (
                  [
                    ['Filaments', stock.filaments],
                    ['Recipes', stock.recipes],
                  ] as const
                ).map(([title, rows]) => (
                  <optgroup key={title} label={title}>
                    {rows.map((row) => (
                      <option key={row.id} value={row.id}>
                        {row.name}
                      </option>
                    ))}
                  </optgroup>
                ))}
            </select>
          </label>
          <label className="quiet">
            by{' '}
            <select className="sorter" value={order} onChange={(event) => look({ by: event.target.value })}>
              {Object.entries(orders).map(([name, { label }]) => (
                <option key={name} value={name}>
                  {label}
                </option>
              ))}
            </select>
          </label>
          <label className="quiet">
            <input type="checkbox" checked={makers} onChange={(event) => look({ makers: event.target.checked ? '1' : '' })} /> makers’
            beside
          </label>
          <Button onClick={(event) => setOpen(event.currentTarget)} aria-haspopup="menu">
            New card
          </Button>
          <Menu open={Boolean(open)} anchorEl={open} onClose={() => setOpen(undefined)}>
            <MenuItem onClick={() => void starts.fromNothing()}>measure up from nothing · n</MenuItem>
            <MenuItem component={Link} to="/take-in">
              from a file …
            </MenuItem>
            <MenuItem disabled>from a pattern: choose one below</MenuItem>
            <MenuItem disabled>from another card: its menu, copy</MenuItem>
          </Menu>
        </div>
        {error && (
          <p className="trouble" role="alert">
            {sentenceOf(error)}
          </p>
        )}
        <Shared>
          <ul className="shelf" style={shelf(deepest, scale)} aria-label="Cards">
            <li className="stand-in-scale">
              <A4Sheet scale={scale} />
              <span className="quiet">A4 sheet</span>
            </li>
            {shown.map((card) => {
              const newer = newerThan(card.card?.pattern, patterns)
              // the maker's version stands beside one's own where it is newer; all of them where that is asked for
              const beside = makers ? patternOf(card.card?.pattern, patterns) : newer
              return (
                <Fragment key={card.id}>
                  <Silhouette
                    head={card}
                    scale={scale}
                    state={stateOf?.(card.id) ?? ''}
                    menu={<CardMenu head={card} />}
                    match={matchOf(card.id)}
                    newer={newer}
                    chosen={chosen.has(card.id)}
                    onChoose={(on) => choose(new Set(on ? [...chosen, card.id] : [...chosen].filter((id) => id !== card.id)))}
                  />
                  {beside && <PatternSilhouette pattern={beside} scale={scale} />}
                </Fragment>
              )
            })}
          </ul>
          {cards?.length === 0 && (
            <p className="nothing">No card yet. A card holds what a slicer must know of one machine; start one with a ruler at hand.</p>
          )}
          {cards && cards.length > 0 && shown.length === 0 && <p className="nothing">No card fits “{sought}”.</p>}

          <div className="head-line patterns-line">
            <h2 className="caps">Patterns</h2>
            <span className="quiet">to look at, and to start a card from; every figure unconfirmed</span>
            <span style={{ flex: 1 }} />
            <Link to="/pattern-sources">Pattern sources</Link>
          </div>
          <ul
            className="shelf patterns"
            style={shelf(Math.max(0, ...shownPatterns.map((p) => bedSize(p.card.bed).depth ?? 0)), patternScale)}
            aria-label="Patterns"
          >
            {shownPatterns.map((pattern) => (
              <PatternSilhouette
                key={pattern.id}
                pattern={pattern}
                scale={patternScale}
                onStart={() => void starts.fromPattern(pattern.id)}
              />
            ))}
          </ul>
          {patterns && shownPatterns.length === 0 && <p className="nothing">No pattern is like “{sought}”.</p>}
        </Shared>
        {saving && (
          <PacketDialog
            what={chosen.size === 0 ? 'all that is here' : `${chosen.size} ${chosen.size === 1 ? 'card' : 'cards'}`}
            {...(chosen.size > 0 && { ids: [...chosen] })}
            onClose={() => setSaving(false)}
          />
        )}
        {archived && archived.length > 0 && (
          <section aria-label="Put away">
            <h2 className="caps">
              <button className="link plain" aria-expanded={away} onClick={() => look({ away: away ? '' : '1' })}>
                <span className="mono">{away ? '−' : '+'}</span> put away, {archived.length}
              </button>
            </h2>
            {away && (
              <ul className="put-away">
                {archived.map((head) => (
                  <li key={head.id}>
                    <Link to={`/cards/${head.id}`}>{head.name || 'without a name'}</Link>{' '}
                    <button className="link quiet" onClick={() => void starts.bringBack(head.id)}>
                      bring back
                    </button>
                  </li>
                ))}
              </ul>
            )}
          </section>
        )}
      </main>
    </Shell>
  )
}

/** Hatchings once for all silhouettes of the page. */
function Shared({ children }: { children: ReactNode }) {
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
