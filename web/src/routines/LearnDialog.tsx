import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useEffect, useState } from 'react'
import { api, dataOf, sentenceOf, type Card, type Learned } from '../api/client'
import { holdGcode } from '../api/limits'
import { known } from '../open-card/sources'
import { documents } from '../open-document/documents'
import { valueAt, withValue, under } from '../open-document/pointer'
import { plain } from '../units/format'

interface LearnDialogProps {
  card: Card
  onClose: () => void
  onTake: (edit: (card: Card) => Card) => void
  /** Read at once. */
  given?: File
}

/** Reads a G-code file that prints well and offers what it tells, old and new side by side. */
export function LearnDialog({ card, onClose, onTake, given }: LearnDialogProps) {
  const [learned, setLearned] = useState<Learned>()
  const [name, setName] = useState('')
  const [failure, setFailure] = useState('')
  const [kept, setKept] = useState('')
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set())

  async function read(file: File) {
    setFailure('')
    try {
      await holdGcode(file)
      const found = dataOf(await api.POST('/api/routines/learn', { body: { card, gcode: await file.text() } }))
      setLearned(found)
      setName(file.name)
    } catch (problem) {
      setFailure(sentenceOf(problem))
    }
  }

  useEffect(() => {
    void Promise.resolve(given).then((file) => file && read(file))
    // the card that it is read for is the one it was given to
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [given])

  /** The rest becomes documents of their own, on the moderate values that follow from the card. */
  async function keep() {
    try {
      const moderate = dataOf(await api.POST('/api/consequences', { body: card }))
      const stem = name.replace(/\.[^.]*$/, '').slice(0, 120) || 'learned'
      const withLearned = <T extends object>(document: T, which: string): T =>
        (learned?.values ?? [])
          .filter((value) => value.for === which)
          .reduce((after, value) => withValue(after, value.pointer, value.value), { ...document, name: stem })
      await documents.make('filaments', withLearned(moderate.filament, 'filament'))
      await documents.make('recipes', withLearned(moderate.recipe, 'recipe'))
      setKept(`Filament and recipe ${stem} are kept: trials can choose them.`)
    } catch (problem) {
      setFailure(sentenceOf(problem))
    }
  }

  const offers = learned
    ? [
        ...(['start', 'end'] as const).flatMap((which) =>
          learned[which] ? [{ pointer: under('/routines', which), name: `${which} routine`, value: learned[which], unit: '' }] : [],
        ),
        ...learned.values.filter((value) => value.for === 'card').map((value) => ({ ...value, value: value.value as number })),
      ]
    : []
  const notes = learned?.notes ?? []
  const others = learned?.values.filter((value) => value.for !== 'card') ?? []
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md">
      <DialogTitle>Learn from what already prints</DialogTitle>
      <DialogContent
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault()
          const [file] = event.dataTransfer.files
          if (file) void read(file)
        }}
      >
        <p>
          Drop a G-code file that prints well on this machine here, or{' '}
          <label className="link">
            choose one
            <input
              type="file"
              hidden
              data-learn-file
              accept=".gcode,.gco,.g,.nc,.txt"
              onChange={(event) => {
                const [file] = event.target.files ?? []
                if (file) void read(file)
              }}
            />
          </label>
          .
        </p>
        {failure && <p role="alert">{failure}</p>}
        {learned && offers.length === 0 && others.length === 0 && <p role="alert">There is nothing in {name} that looks like a print.</p>}
        {notes.length > 0 && (
          <ul className="learned-notes">
            {notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        )}
        {offers.length > 0 && (
          <table className="redline learned">
            <thead>
              <tr>
                <th />
                <th>{name}</th>
                <th>on the card</th>
                <th>in the file</th>
              </tr>
            </thead>
            <tbody>
              {offers.map(({ pointer, name: fact, value, unit }) => (
                <tr key={pointer} data-learned={pointer}>
                  <td>
                    <input
                      type="checkbox"
                      aria-label={`take ${fact}`}
                      checked={taken.has(pointer)}
                      onChange={(event) =>
                        setTaken(new Set(event.target.checked ? [...taken, pointer] : [...taken].filter((one) => one !== pointer)))
                      }
                    />
                  </td>
                  <td>{fact}</td>
                  <td className="mono before">{shown(valueAt(card, pointer), unit)}</td>
                  <td className="mono after">{shown(value, unit)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {others.length > 0 && (
          <>
            <h3 className="caps">It was printed with</h3>
            <ul className="learned-others">
              {others.map((value) => (
                <li key={value.pointer}>
                  {value.name} <strong>{shown(value.value, value.unit)}</strong>{' '}
                  <span className="quiet">
                    {value.for}
                    {value.share < 0.995 ? `, ${Math.round(100 * value.share)} % of it` : ''}
                  </span>
                </li>
              ))}
            </ul>
            <p>
              {kept || (
                <button className="key" onClick={() => void keep()}>
                  Keep it as a filament and a recipe
                </button>
              )}
            </p>
          </>
        )}
      </DialogContent>
      <DialogActions>
        <Button variant="text" onClick={onClose}>
          Close
        </Button>
        <Button
          variant="contained"
          disabled={taken.size === 0}
          onClick={() => {
            onTake((before) =>
              offers
                .filter(({ pointer }) => taken.has(pointer))
                .reduce((after, { pointer, value }) => known(withValue(after, pointer, value), [pointer], 'carried-over', name), before),
            )
            onClose()
          }}
        >
          Take over {taken.size > 0 ? taken.size : ''}
        </Button>
      </DialogActions>
    </Dialog>
  )
}

function shown(value: unknown, unit: string): string {
  if (value === undefined || value === null) return '—'
  return typeof value === 'number' ? `${plain(value)}${unit ? ` ${unit}` : ''}` : String(value)
}
