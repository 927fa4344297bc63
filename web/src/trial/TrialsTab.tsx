import { Button } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { Link, useNavigate } from 'react-router'
import { sentenceOf } from '../api/client'
import { DocumentMenu } from '../exchange/DocumentMenu'
import { documents } from '../open-document/documents'
import { firstChoice } from '../open-document/firstChoice'
import { timeOfDay } from '../units/format'
import { useCard } from '../open-card/CardContext'

/** The trials of this card. */
export function TrialsTab() {
  const { id, document: card } = useCard()
  const { data: trials } = useQuery({ queryKey: ['list', 'trials', id], queryFn: () => documents.list('trials', id) })
  const go = useNavigate()
  const { enqueueSnackbar } = useSnackbar()
  const open = async () => {
    try {
      const choice = await firstChoice(id)
      const made = await documents.make('trials', {
        schema: 'mill-card/trial/1',
        name: `Trial ${(trials?.length ?? 0) + 1} on ${card.name || 'this card'}`,
        card: id,
        ...choice,
        parts: [],
      })
      await go(`/trials/${made.id}`)
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
  }
  return (
    <main className="trials-tab">
      <div className="head-line">
        <h2 className="caps">Trials</h2>
        <span className="quiet">parts put on this bed, sliced and dry-run</span>
      </div>
      {trials?.length === 0 && <p className="nothing">No part has been tried on this card yet.</p>}
      <table className="list" hidden={!trials?.length}>
        <thead>
          <tr>
            <th>Trial</th>
            <th />
            <th>Saved</th>
          </tr>
        </thead>
        <tbody>
          {trials?.map((trial) => (
            <tr key={trial.id}>
              <td>
                <Link to={`/trials/${trial.id}`}>{trial.name || 'without a name'}</Link>
              </td>
              <td>
                <DocumentMenu kind="trials" id={trial.id} name={trial.name} />
              </td>
              <td className="mono">
                {trial.savedAt.slice(0, 10)} {timeOfDay(trial.savedAt)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        <Button variant="contained" onClick={() => void open()}>
          Open a trial
        </Button>
      </p>
    </main>
  )
}
