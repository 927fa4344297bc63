import { Dialog } from '@mui/material'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useDeferredValue, useEffect, useEffectEvent, useState } from 'react'
import { useNavigate } from 'react-router'
import { api, dataOf, sentenceOf, type Found } from '../api/client'
import { inField } from './inField'
import './find.css'

/** A search over everything that is written down, from any page: `/`, or its key in the bar. */
export function FindEverything() {
  const [open, setOpen] = useState(false)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== '/' || inField(event)) return
      event.preventDefault()
      if (event.ctrlKey || event.metaKey) document.querySelector<HTMLInputElement>('[data-search]')?.focus()
      else setOpen(true)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  return (
    <>
      <button className="key" onClick={() => setOpen(true)} aria-label="Search everything" title="Search everything: /">
        find
      </button>
      {open && <FindDialog onClose={() => setOpen(false)} />}
    </>
  )
}

function FindDialog({ onClose }: { onClose: () => void }) {
  const [text, setText] = useState('')
  const [at, setAt] = useState(0)
  const [entered, setEntered] = useState(false)
  const sought = useDeferredValue(text.trim())
  const go = useNavigate()
  const { data, error, isPlaceholderData } = useQuery({
    queryKey: ['search', sought],
    placeholderData: keepPreviousData,
    staleTime: 0,
    retry: false,
    queryFn: async ({ signal }) => dataOf(await api.GET('/api/search', { params: { query: { text: sought } }, signal })),
  })
  const found = data ?? []
  const open = useEffectEvent((one: Found) => {
    onClose()
    void go(addressOf(one))
  })
  // a key pressed before the answer to what is typed is there waits for it
  const answered = data !== undefined && !isPlaceholderData && sought === text.trim()
  const chosen = found[at]
  useEffect(() => {
    if (entered && answered && chosen) open(chosen)
  }, [entered, answered, chosen])
  const onKey = (event: React.KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key]
    if (by) {
      event.preventDefault()
      setAt((now) => Math.max(0, Math.min(found.length - 1, now + by)))
    }
    if (event.key === 'Enter') setEntered(true)
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md" aria-label="Search everything" className="find-dialog">
      <input
        className="find-field"
        role="combobox"
        aria-expanded
        aria-controls="find-list"
        aria-activedescendant={found[at] ? `find-${at}` : undefined}
        aria-label="Words to search for"
        placeholder="cards, filaments, recipes, trials, notes, tags, routines …"
        value={text}
        maxLength={200}
        autoFocus
        onChange={(event) => {
          setText(event.target.value)
          setAt(0)
          setEntered(false)
        }}
        onKeyDown={onKey}
      />
      <p className="caps find-head">{sought === '' ? 'Changed last' : 'Found'}</p>
      {error && (
        <p className="trouble" role="alert">
          {sentenceOf(error)}
        </p>
      )}
      {data && found.length === 0 && <p className="nothing">Nothing that is written down holds “{sought}”.</p>}
      <ul id="find-list" role="listbox" aria-label="Found">
        {found.map((one, i) => (
          // the field keeps the focus; its keys choose
          // eslint-disable-next-line jsx-a11y/click-events-have-key-events
          <li
            key={i}
            id={`find-${i}`}
            role="option"
            aria-selected={i === at}
            className={i === at ? 'lit' : undefined}
            onClick={() => {
              setAt(i)
              setEntered(true)
            }}
          >
            <span className="quiet find-kind">{one.kind}</span>
            <strong>{one.name || 'without a name'}</strong>
            {one.place !== 'shelf' && <span className="quiet">{one.place === 'bin' ? 'in the bin' : 'put away'}</span>}
            <span className="find-text">
              {one.pointer && <span className="quiet">{placeOf(one)}: </span>}
              {one.text}
            </span>
          </li>
        ))}
      </ul>
    </Dialog>
  )
}

/** Where in a document something was found, in words. */
function placeOf({ pointer, line }: Found): string {
  const steps = (pointer ?? '').split('/').filter((step) => step !== '' && !/^\d+$/.test(step))
  const words = steps.map((step) => step.replace(/([A-Z])/g, ' $1').toLowerCase()).join(' ')
  return line ? `${words}, line ${line}` : words
}

/** The page that shows what was found. */
function addressOf({ kind, id, place, pointer, line }: Found): string {
  if (place === 'bin') return '/bin'
  if (kind === 'revision' || kind === 'print') return `/cards/${id}/history`
  const [, room, name] = (pointer ?? '').split('/')
  if (kind === 'card' && room === 'routines') return `/cards/${id}/routines?moment=${name}&line=${line ?? 1}`
  return `/${kind}s/${id}`
}
