import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, dataOf, sentenceOf, type BinEntry, type DocumentHead } from '../api/client'
import { Shell } from '../shell/Shell'
import { documents, type Kind } from '../open-document/documents'
import { dayOf } from '../units/format'
import './bin.css'

/** What was deleted: when, how long it can be brought back, and clearing it now. */
export default function BinPage() {
  const { data: entries, error } = useQuery({ queryKey: ['bin'], queryFn: async () => dataOf(await api.GET('/api/bin')) })
  const [asking, ask] = useState<BinEntry | 'all'>()
  const client = useQueryClient()
  const { enqueueSnackbar } = useSnackbar()
  const attempt = async (work: () => Promise<unknown>, said: string) => {
    try {
      await work()
      enqueueSnackbar(said)
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
    await client.invalidateQueries()
  }
  const clear = (which: BinEntry | 'all') =>
    attempt(
      async () =>
        which === 'all'
          ? dataOf(await api.DELETE('/api/bin'))
          : dataOf(await api.DELETE('/api/bin/{id}', { params: { path: { id: which.id } } })),
      which === 'all' ? 'The bin is cleared.' : `${called(which)} is gone for good.`,
    )
  return (
    <Shell trail={[{ name: 'Rack', to: '/' }]} title="Bin and archive">
      <main className="page bin-page">
        <div className="head-line between">
          <h1 className="caps">Deleted</h1>
          {entries && entries.length > 0 && (
            <Button size="small" onClick={() => ask('all')}>
              Clear the bin now
            </Button>
          )}
        </div>
        {error && (
          <p className="trouble" role="alert">
            {sentenceOf(error)}
          </p>
        )}
        {entries?.length === 0 && <p className="nothing">Nothing was deleted. What is deleted stands here for 30 days.</p>}
        {entries && entries.length > 0 && (
          <table className="list">
            <thead>
              <tr>
                <th>What</th>
                <th>Deleted</th>
                <th>Goes for good</th>
                <td />
              </tr>
            </thead>
            <tbody>
              {entries.map((entry) => (
                <tr key={entry.id}>
                  <td>
                    <span className="quiet">{entry.kind}</span> {called(entry)}
                    {entry.trials > 0 && (
                      <span className="quiet">, with {entry.trials === 1 ? 'its trial' : `its ${entry.trials} trials`}</span>
                    )}
                  </td>
                  <td className="mono">{dayOf(entry.deletedAt)}</td>
                  <td className="mono">{dayOf(entry.goesAt)}</td>
                  <td>
                    <button
                      className="link"
                      onClick={() => void attempt(() => documents.restore(`${entry.kind}s` as Kind, entry.id), `${called(entry)} is back.`)}
                    >
                      bring back
                    </button>{' '}
                    <button className="link quiet" onClick={() => ask(entry)}>
                      clear now
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <PutAway onBringBack={(kind, one) => void attempt(() => documents.restore(kind, one.id), `${one.name || 'It'} is back.`)} />
        {asking && (
          <Dialog open onClose={() => ask(undefined)} fullWidth maxWidth="xs">
            <DialogTitle>{asking === 'all' ? `Clear all ${entries?.length ?? ''} now?` : `Clear ${called(asking)} now?`}</DialogTitle>
            <DialogContent>
              <p>It cannot be brought back then: revisions, proofs, prints and trials that belong to it go too.</p>
            </DialogContent>
            <DialogActions>
              <Button variant="text" onClick={() => ask(undefined)}>
                Leave it
              </Button>
              <Button
                variant="contained"
                onClick={() => {
                  void clear(asking)
                  ask(undefined)
                }}
              >
                Clear for good
              </Button>
            </DialogActions>
          </Dialog>
        )}
      </main>
    </Shell>
  )
}

const kinds: Kind[] = ['cards', 'filaments', 'recipes', 'trials']

/** What was put away, of every kind. */
function PutAway({ onBringBack }: { onBringBack: (kind: Kind, head: DocumentHead) => void }) {
  const { data } = useQuery({
    queryKey: ['archived'],
    queryFn: async () => {
      const lists = await Promise.all(kinds.map((kind) => documents.archived(kind)))
      return lists.flatMap((heads, i) => heads.map((head) => ({ kind: kinds[i]!, head })))
    },
  })
  if (!data) return null
  return (
    <section aria-label="Put away">
      <h2 className="caps">Put away</h2>
      {data.length === 0 && <p className="nothing">Nothing is put away.</p>}
      {data.length > 0 && (
        <table className="list">
          <tbody>
            {data.map(({ kind, head }) => (
              <tr key={head.id}>
                <td>
                  <span className="quiet">{kind.slice(0, -1)}</span> <Link to={`/${kind}/${head.id}`}>{head.name || 'without a name'}</Link>
                </td>
                <td className="mono">{dayOf(head.savedAt)}</td>
                <td>
                  <button className="link" onClick={() => onBringBack(kind, head)}>
                    bring back
                  </button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}

const called = (entry: BinEntry) => entry.name || `${entry.kind} without a name`
