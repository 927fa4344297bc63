import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Menu, MenuItem } from '@mui/material'
import { useSnackbar } from 'notistack'
import { useState } from 'react'
import type { DocumentHead } from '../api/client'
import { PacketDialog } from '../exchange/PacketDialog'
import { useStarts } from './useStarts'

/** What can be done with a card from the rack. */
export function CardMenu({ head }: { head: DocumentHead }) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const [name, setName] = useState<string>()
  const [saving, setSaving] = useState(false)
  const starts = useStarts()
  const { enqueueSnackbar, closeSnackbar } = useSnackbar()
  const called = head.name || 'the card'
  const after = (said: string) => {
    enqueueSnackbar(said, {
      action: (key) => (
        <Button
          color="inherit"
          onClick={() => {
            closeSnackbar(key)
            void starts.bringBack(head.id)
          }}
        >
          Undo
        </Button>
      ),
    })
  }
  const choose = (work: () => void) => () => {
    setAnchor(undefined)
    work()
  }
  return (
    <>
      <button
        className="key card-menu"
        aria-label={`What to do with ${called}`}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        …
      </button>
      <Menu open={Boolean(anchor)} anchorEl={anchor} onClose={() => setAnchor(undefined)}>
        <MenuItem onClick={choose(() => void starts.copy(head.id))}>copy</MenuItem>
        <MenuItem onClick={choose(() => setName(head.name))}>rename</MenuItem>
        <MenuItem onClick={choose(() => setSaving(true))}>save as a file …</MenuItem>
        <MenuItem onClick={choose(() => void starts.putAway(head.id).then(() => after(`${called} is put away.`)))}>put away</MenuItem>
        <MenuItem onClick={choose(() => void starts.remove(head.id).then(() => after(`${called} is deleted.`)))}>delete</MenuItem>
      </Menu>
      {saving && <PacketDialog what={called} ids={[head.id]} alone={{ kind: 'cards', id: head.id }} onClose={() => setSaving(false)} />}
      {name !== undefined && (
        <Dialog open onClose={() => setName(undefined)} fullWidth maxWidth="xs">
          <form
            onSubmit={(event) => {
              event.preventDefault()
              if (!name.trim()) return
              void starts.rename(head.id, name.trim())
              setName(undefined)
            }}
          >
            <DialogTitle>Rename {called}</DialogTitle>
            <DialogContent>
              <label className="quiet">
                name
                <input className="plain-field" value={name} maxLength={120} autoFocus onChange={(event) => setName(event.target.value)} />
              </label>
            </DialogContent>
            <DialogActions>
              <Button variant="text" onClick={() => setName(undefined)}>
                Leave it
              </Button>
              <Button type="submit" variant="contained" disabled={!name.trim()}>
                Rename
              </Button>
            </DialogActions>
          </form>
        </Dialog>
      )}
    </>
  )
}
