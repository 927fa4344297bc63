import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import { sentenceOf } from '../api/client'
import type { Kind } from '../open-document/documents'
import { PacketDialog } from './PacketDialog'

interface StartCleanProps<T> {
  kind: Kind
  id: string
  name: string
  /** What it can be set back to: in a few words, and how to get it. */
  ways: { says: string; get: () => T | Promise<T> }[]
  onStart: (clean: T) => void
}

/** Sets a document back to a clean state, after its old one was offered as a packet. */
export function StartClean<T>({ kind, id, name, ways, onStart }: StartCleanProps<T>) {
  const [open, setOpen] = useState(false)
  const [saving, setSaving] = useState(false)
  const [way, setWay] = useState(0)
  const { enqueueSnackbar } = useSnackbar()
  const start = async () => {
    try {
      onStart(await ways[way]!.get())
      setOpen(false)
      enqueueSnackbar(`${name} starts clean; undo takes that back.`)
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
  }
  return (
    <>
      <button className="link" onClick={() => setOpen(true)}>
        start clean …
      </button>
      {open && (
        <Dialog open onClose={() => setOpen(false)} fullWidth maxWidth="sm">
          <DialogTitle>Start {name} clean</DialogTitle>
          <DialogContent className="packet-dialog">
            <fieldset>
              <legend className="quiet">set it back to</legend>
              {ways.map(({ says }, i) => (
                <label key={says}>
                  <input type="radio" name="way" checked={way === i} onChange={() => setWay(i)} /> {says}
                </label>
              ))}
            </fieldset>
            <p>
              Its draft is replaced, its name kept; revisions and prints stay.{' '}
              <button className="link" onClick={() => setSaving(true)}>
                save the old state as a packet first
              </button>
            </p>
          </DialogContent>
          <DialogActions>
            <Button variant="text" onClick={() => setOpen(false)}>
              Leave it
            </Button>
            <Button variant="contained" onClick={() => void start()}>
              Start clean
            </Button>
          </DialogActions>
        </Dialog>
      )}
      {saving && <PacketDialog what={name} ids={[id]} alone={{ kind, id }} onClose={() => setSaving(false)} />}
    </>
  )
}
