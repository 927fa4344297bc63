import { Button, Menu, MenuItem } from '@mui/material'
import { useQueryClient } from '@tanstack/react-query'
import { useSnackbar } from 'notistack'
import { useState, type ReactNode } from 'react'
import { sentenceOf } from '../api/client'
import { documents, type Kind } from '../open-document/documents'
import { PacketDialog } from './PacketDialog'

const lists = ['list', 'archived', 'bin', 'matches', 'search']

interface DocumentMenuProps {
  kind: Kind
  id: string
  name: string
  /** What can be done with this kind beside; each closes the menu. */
  more?: (choose: (work: () => void) => () => void) => ReactNode
}

/** What can be done with a document from a list: save it as a file, put it away, delete it; the last two can be taken back at once. */
export function DocumentMenu({ kind, id, name, more }: DocumentMenuProps) {
  const [anchor, setAnchor] = useState<HTMLElement>()
  const [saving, setSaving] = useState(false)
  const client = useQueryClient()
  const { enqueueSnackbar, closeSnackbar } = useSnackbar()
  const called = name || `the ${kind.slice(0, -1)}`
  const attempt = async (work: () => Promise<unknown>, said?: string) => {
    try {
      await work()
      // what is open stays open: only lists tell of what comes and goes
      await Promise.all(lists.map((name) => client.invalidateQueries({ queryKey: [name] })))
      if (said) enqueueSnackbar(said, { action: (key) => <Undo onUndo={() => (closeSnackbar(key), bringBack())} /> })
    } catch (failure) {
      enqueueSnackbar(sentenceOf(failure), { variant: 'error' })
    }
  }
  const bringBack = () => void attempt(() => documents.restore(kind, id))
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
        {more?.(choose)}
        <MenuItem onClick={choose(() => setSaving(true))}>save as a file …</MenuItem>
        <MenuItem onClick={choose(() => void attempt(() => documents.archive(kind, id), `${called} is put away.`))}>put away</MenuItem>
        <MenuItem onClick={choose(() => void attempt(() => documents.remove(kind, id), `${called} is deleted.`))}>delete</MenuItem>
      </Menu>
      {saving && <PacketDialog what={called} ids={[id]} alone={{ kind, id }} onClose={() => setSaving(false)} />}
    </>
  )
}

function Undo({ onUndo }: { onUndo: () => void }) {
  return (
    <Button color="inherit" onClick={onUndo}>
      Undo
    </Button>
  )
}
