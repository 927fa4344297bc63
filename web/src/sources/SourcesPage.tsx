import { Button } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { api, dataOf, sentenceOf } from '../api/client'
import { useDropped } from '../exchange/dropped'
import { Shell } from '../shell/Shell'
import { useAddress } from '../shell/useAddress'
import { Review } from './Review'
import { Sources } from './Sources'
import type { From } from './reading'
import './sources.css'

/** Pattern sources: those that are here, and one that is looked at before it is taken. */
export default function SourcesPage() {
  const { data, error } = useQuery({
    queryKey: ['pattern-sources'],
    queryFn: async () => dataOf(await api.GET('/api/pattern-sources')),
  })
  const [params, show] = useAddress()
  const files = useDropped(({ files }) => files)
  const list = params.get('list')
  const place = params.get('place')
  const dropped: From | undefined = list && files.length > 0 ? { files, list } : undefined
  const from = place ? { place } : dropped
  const [typed, type] = useState(place ?? '')
  const client = useQueryClient()
  const done = () => {
    show({ list: '', place: '' })
    type('')
    return Promise.all([['pattern-sources'], ['patterns']].map((queryKey) => client.invalidateQueries({ queryKey })))
  }
  return (
    <Shell trail={[{ name: 'Rack', to: '/' }]} title="Pattern sources">
      <main className="page sources-page">
        <h1 className="caps">Pattern sources</h1>
        <p className="quiet">
          Makers publish patterns with versions, signed with a key of theirs. The key is pinned when a source is first taken: what is signed
          with another is refused.
        </p>
        {error && (
          <p className="trouble" role="alert">
            {sentenceOf(error)}
          </p>
        )}
        {data && <Sources sources={data.sources} onChanged={done} />}
        <section aria-label="Another source">
          <h2 className="caps">Another source</h2>
          <form
            className="source-place"
            onSubmit={(event) => {
              event.preventDefault()
              if (typed.trim()) show({ list: '', place: typed.trim() })
            }}
          >
            <input
              className="plain-field"
              aria-label="Folder, zip or address of a source"
              placeholder="https://…, a folder or a zip"
              value={typed}
              maxLength={1000}
              onChange={(event) => type(event.target.value)}
            />
            <Button type="submit" disabled={typed.trim() === ''}>
              Look at it
            </Button>
          </form>
          {data && <Where folders={data.folders} hosts={data.hosts} />}
          {list && files.length === 0 && (
            <p className="trouble" role="alert">
              What was dropped is not at hand any more; drop it once more.
            </p>
          )}
          {from && <Review key={place ?? list} from={from} onDone={done} />}
        </section>
      </main>
    </Shell>
  )
}

function Where({ folders, hosts }: { folders: readonly string[]; hosts: readonly string[] }) {
  return (
    <p className="quiet">
      Or drop its folder or zip on any page.{' '}
      {folders.length > 0 ? `The server reads below ${folders.join(', ')}` : 'The server reads no folders'}
      {hosts.length > 0 ? ` and asks ${hosts.join(', ')}.` : ' and asks no host; its configuration lists them under Patterns:Hosts.'}
    </p>
  )
}
