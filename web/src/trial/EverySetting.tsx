import { Button, Dialog } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, dataOf, sentenceOf, type ResolvedSetting } from '../api/client'
import { useTrial } from './TrialContext'

const givers: Record<ResolvedSetting['from'], string> = {
  usual: 'usual',
  card: 'card',
  recipe: 'recipe',
  filament: 'filament',
  nozzle: 'nozzle',
  part: 'part',
  zone: 'zone',
}

/** Every setting of the trial with its value and where it comes from; nothing is hidden. */
export function EverySetting() {
  const [open, setOpen] = useState(false)
  return (
    <>
      <p>
        <button className="link" onClick={() => setOpen(true)}>
          every setting, and where it comes from
        </button>
      </p>
      <Dialog open={open} onClose={() => setOpen(false)} fullWidth maxWidth="md" aria-label="Every setting">
        {open && <AllOf onClose={() => setOpen(false)} />}
      </Dialog>
    </>
  )
}

function AllOf({ onClose }: { onClose: () => void }) {
  const { trial, card, filament, recipe } = useTrial('trial', 'card', 'filament', 'recipe')
  const [search, setSearch] = useState('')
  const { data: settings, error } = useQuery({
    queryKey: ['settings', trial.id, trial.savedAt, card.savedAt, filament?.savedAt, recipe?.savedAt, trial.document],
    retry: false,
    queryFn: async () => dataOf(await api.GET('/api/trials/{id}/settings', { params: { path: { id: trial.id } } })),
  })
  const sought = search.trim().toLowerCase()
  const shown = settings?.filter((s) => [s.label, s.value, s.who, givers[s.from]].some((text) => text.toLowerCase().includes(sought)))
  // a setting may stand twice under one giver: its place in the whole list tells it from all others
  const keys = new Map(settings?.map((setting, i) => [setting, i]))
  const address = ({ from }: ResolvedSetting) => {
    if (from === 'filament') return filament && `/filaments/${filament.id}`
    if (from === 'recipe') return recipe && `/recipes/${recipe.id}`
    return from === 'card' || from === 'nozzle' ? `/cards/${card.id}` : undefined
  }
  return (
    <div className="every-setting">
      <div className="head-line between">
        <h2 className="caps">Every setting</h2>
        <input
          className="search"
          autoFocus
          placeholder="Find a setting, a value, a part"
          aria-label="Find a setting, a value, a part"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
        />
        <span className="quiet">{shown ? `${shown.length} of ${settings!.length}` : ''}</span>
        <Button onClick={onClose}>Close</Button>
      </div>
      {error && (
        <p className="trouble" role="alert">
          {sentenceOf(error)}
        </p>
      )}
      <div className="scroller">
        <table className="list">
          <thead>
            <tr>
              <th>Setting</th>
              <th>Value</th>
              <th>Given by</th>
              <th>Laid over</th>
            </tr>
          </thead>
          <tbody>
            {shown?.map((setting) => {
              const to = address(setting)
              return (
                <tr key={keys.get(setting)}>
                  <td>{setting.label}</td>
                  <td className="mono">
                    {setting.value.length > 60 ? `${setting.value.slice(0, 60)} …` : setting.value || '—'}{' '}
                    {setting.value && <span className="quiet">{setting.unit}</span>}
                  </td>
                  <td>
                    {givers[setting.from]}
                    {setting.from !== 'usual' && <> · {to ? <Link to={to}>{setting.who}</Link> : setting.who}</>}
                  </td>
                  <td className="quiet">{setting.over.join('; ')}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
    </div>
  )
}
