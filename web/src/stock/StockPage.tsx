import { Button } from '@mui/material'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { api, dataOf, sentenceOf, type Verdict } from '../api/client'
import { Shell } from '../shell/Shell'
import { DocumentMenu } from '../exchange/DocumentMenu'
import { documents } from '../open-document/documents'
import { VerdictMark, verdictWords } from '../findings/VerdictMark'
import './stock.css'

interface Row {
  id: string
  name: string
  matches: { verdict: Verdict; reasons: { message: string }[] }[]
}

/** All filaments and recipes against all cards: which goes with which, and why not. */
export default function StockPage() {
  const { data: table, error } = useQuery({ queryKey: ['matches'], queryFn: async () => dataOf(await api.GET('/api/matches')) })
  const [cell, setCell] = useState<{ row: Row; card: number }>()
  const client = useQueryClient()
  const go = useNavigate()
  const { enqueueSnackbar } = useSnackbar()
  const make = async (kind: 'filaments' | 'recipes') => {
    try {
      const made = await documents.make(kind, { name: kind === 'filaments' ? 'New filament' : 'New recipe' })
      await client.invalidateQueries({ queryKey: ['list', kind] })
      void go(`/${kind}/${made.id}`)
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
  }
  const rows = (kind: 'filaments' | 'recipes', title: string) => (
    <section aria-label={title}>
      <div className="head-line between">
        <h2 className="caps">{title}</h2>
        <Button size="small" onClick={() => void make(kind)}>
          New {kind === 'filaments' ? 'filament' : 'recipe'}
        </Button>
      </div>
      <table className="list stock">
        <thead>
          <tr>
            <th>{title.slice(0, -1)}</th>
            {table?.cardNames.map((name, i) => (
              <th key={table.cards[i]} className="card-name">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {table?.[kind].map((row) => (
            <tr key={row.id}>
              <td>
                <Link to={`/${kind}/${row.id}`}>{row.name}</Link> <DocumentMenu kind={kind} id={row.id} name={row.name} />
              </td>
              {row.matches.map((match, i) => (
                <td key={table.cards[i]} className="verdict">
                  <button
                    className={cell?.row.id === row.id && cell.card === i ? 'link plain lit' : 'link plain'}
                    aria-label={`${row.name} on ${table.cardNames[i]}: ${verdictWords[match.verdict]}`}
                    title={match.reasons.map((reason) => reason.message).join('\n') || 'fits'}
                    onClick={() => setCell({ row, card: i })}
                  >
                    <VerdictMark verdict={match.verdict} />
                  </button>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {table?.[kind].length === 0 && <p className="nothing">None yet.</p>}
    </section>
  )
  return (
    <Shell trail={[{ name: 'Rack', to: '/' }]} title="Filaments and recipes">
      <main className="page stock-page">
        {error && (
          <p className="trouble" role="alert">
            {sentenceOf(error)}
          </p>
        )}
        {rows('filaments', 'Filaments')}
        {rows('recipes', 'Recipes')}
        <p className="legend quiet">
          <VerdictMark verdict="fits" /> fits <VerdictMark verdict="fits-with-cautions" /> fits with cautions{' '}
          <VerdictMark verdict="does-not-fit" /> does not fit; a mark tells why.
        </p>
        {table && cell && (
          <section aria-label="Why" className="why" role="status">
            <h2 className="caps">
              {cell.row.name} on {table.cardNames[cell.card]}
            </h2>
            {cell.row.matches[cell.card]!.reasons.length === 0 && <p className="fits">Everything it needs is there.</p>}
            {cell.row.matches[cell.card]!.reasons.map((reason) => (
              <p key={reason.message}>{reason.message}</p>
            ))}
          </section>
        )}
      </main>
    </Shell>
  )
}
