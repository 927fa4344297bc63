import { Dialog, DialogContent, DialogTitle } from '@mui/material'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api, dataOf } from '../api/client'
import { inField } from './inField'

const keys: [string, string][] = [
  ['?', 'this list'],
  ['/', 'search everything'],
  ['Ctrl /', 'to the search field of the page'],
  ['n', 'new card, on the rack'],
  ['a', 'add a file, in a trial'],
  ['g', 'arrange the parts, in a trial'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z, Ctrl Y', 'redo'],
  ['Esc', 'back to the last good value, in a field'],
  ['arrow keys', 'move what is selected by 1 mm, with Shift by 10, with Alt by 0.1, in a trial'],
  ['Ctrl A, C, V, Del', 'select, copy, paste, remove parts, in a trial'],
  ['m', 'mirror what is selected, in a trial'],
  ['f, k', 'stand on the face that is clicked next; keep this variant, in a trial'],
  ['1 2 3, Esc', 'plan, elevation or pictorial view fills the sheet; all of them'],
  ['Page Up, Page Down', 'a layer up or down, in a trial'],
  [', .', 'a move of the layer back or on, in a trial'],
]

/** The list of shortcuts, under `?`. */
export function Shortcuts() {
  const [open, setOpen] = useState(false)
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (inField(event) || event.ctrlKey || event.metaKey) return
      if (event.key === '?') setOpen(true)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  return (
    <>
      <button className="key" onClick={() => setOpen(true)} aria-label="Shortcuts">
        ?
      </button>
      <Dialog open={open} onClose={() => setOpen(false)}>
        <DialogTitle>Keys</DialogTitle>
        <DialogContent>
          <Version />
          <table className="list">
            <tbody>
              {keys.map(([key, does]) => (
                <tr key={key}>
                  <td className="mono">{key}</td>
                  <td>{does}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </DialogContent>
      </Dialog>
    </>
  )
}

function Version() {
  const { data } = useQuery({ queryKey: ['health'], queryFn: async () => dataOf(await api.GET('/api/health')) })
  return <p className="quiet">Mill Card {data?.version ?? '…'}</p>
}
