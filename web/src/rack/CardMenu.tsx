import { Button, Dialog, DialogActions, DialogContent, DialogTitle, MenuItem } from '@mui/material'
import { useState } from 'react'
import type { DocumentHead } from '../api/client'
import { DocumentMenu } from '../exchange/DocumentMenu'
import { useStarts } from './useStarts'

/** What can be done with a card from the rack. */
export function CardMenu({ head }: { head: DocumentHead }) {
  const [name, setName] = useState<string>()
  const starts = useStarts()
  const called = head.name || 'the card'
  return (
    <>
      <DocumentMenu
        kind="cards"
        id={head.id}
        name={head.name}
        more={(choose) => [
          <MenuItem key="copy" onClick={choose(() => void starts.copy(head.id))}>
            copy
          </MenuItem>,
          <MenuItem key="rename" onClick={choose(() => setName(head.name))}>
            rename
          </MenuItem>,
        ]}
      />
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
