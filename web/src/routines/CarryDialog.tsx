import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useState } from 'react'
import { api, dataOf, sentenceOf, type Card, type CarriedRoutine, type FlavourId } from '../api/client'
import { useAnswer } from '../api/useAnswer'
import { withValue } from '../open-document/pointer'
import { useFlavours } from '../routine-editor/useRoutineWords'

interface CarryDialogProps {
  card: Card
  onClose: () => void
  onTake: (edit: (card: Card) => Card) => void
}

/** The routines in another flavour, beside what they are now, line by line; nothing goes without a word. */
export function CarryDialog({ card, onClose, onTake }: CarryDialogProps) {
  const flavours = useFlavours()
  const [to, setTo] = useState<FlavourId>()
  const { data, error } = useAnswer('carry', to ? { card, to } : undefined, async (body, signal) =>
    dataOf(await api.POST('/api/routines/carry', { body, signal })),
  )
  const lines = data?.flatMap((routine) => routine.lines) ?? []
  const count = (kind: string) => lines.filter((line) => line.kind === kind).length
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="lg">
      <DialogTitle>Carry the routines to another flavour</DialogTitle>
      <DialogContent>
        <p>
          From {flavours.find((one) => one.id === card.firmware?.flavour)?.name ?? 'no flavour yet'} to{' '}
          <select
            className="plain-field"
            aria-label="flavour"
            value={to ?? ''}
            onChange={(event) => setTo(event.target.value as FlavourId)}
          >
            <option value="" disabled>
              choose
            </option>
            {flavours
              .filter((one) => one.id !== card.firmware?.flavour)
              .map((one) => (
                <option key={one.id} value={one.id ?? ''}>
                  {one.name}
                </option>
              ))}
          </select>
          {data && (
            <span className="quiet">
              {' '}
              {count('changed')} lines change, {count('lost')} have no counterpart and stay as comments, {count('unknown')} are not known
              and stay as they are.
            </span>
          )}
        </p>
        {error && <p role="alert">{sentenceOf(error)}</p>}
        {data?.map((routine) => (
          <Redline key={routine.pointer} routine={routine} />
        ))}
      </DialogContent>
      <DialogActions>
        <Button variant="text" onClick={onClose}>
          Leave it as it is
        </Button>
        <Button
          variant="contained"
          disabled={!data || !to}
          onClick={() => {
            onTake((before) =>
              data!.reduce(
                (after, { pointer, lines }) => withValue(after, pointer, lines.map((line) => line.after).join('\n')),
                withValue(before, '/firmware/flavour', to),
              ),
            )
            onClose()
          }}
        >
          Take it over
        </Button>
      </DialogActions>
    </Dialog>
  )
}

function Redline({ routine }: { routine: CarriedRoutine }) {
  return (
    <>
      <h3 className="caps">{routine.title}</h3>
      <table className="redline">
        <tbody>
          {routine.lines.map((line) => (
            <tr key={line.line} className={line.kind} data-carried={line.kind}>
              <td className="number">{line.line}</td>
              <td className="mono before">{line.before}</td>
              <td className="mono after">{line.after}</td>
              <td className="why">{line.note}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
