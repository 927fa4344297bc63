import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useState } from 'react'
import { useMacros } from './useRoutines'

const longest = 400_000

interface MacroDialogProps {
  text: string
  onClose: () => void
  onTake: (text: string | undefined) => void
}

/** The file with the owner's macros: given as a file or pasted; what it holds is listed. */
export function MacroDialog({ text, onClose, onTake }: MacroDialogProps) {
  const [draft, setDraft] = useState(text)
  const macros = useMacros(draft)
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md">
      <DialogTitle>Macro file</DialogTitle>
      <DialogContent className="macro-dialog">
        <p className="quiet">
          The configuration of the machine, with its macro sections. Calls in routines are checked against it, and the dry run steps into
          it.{' '}
          <label className="link">
            choose a file
            <input
              type="file"
              hidden
              accept=".cfg,.ini,.conf,.txt"
              onChange={(event) => {
                const [file] = event.target.files ?? []
                if (file && file.size <= longest) void file.text().then(setDraft)
              }}
            />
          </label>
        </p>
        <div className="macro-columns">
          <textarea
            className="plain-field mono"
            aria-label="macro file"
            rows={18}
            spellCheck={false}
            maxLength={longest}
            value={draft}
            onChange={(event) => setDraft(event.target.value)}
          />
          <ul>
            {macros.length === 0 && <li className="quiet">No macro in it yet.</li>}
            {macros.map((macro) => (
              <li key={macro.name}>
                <strong className="mono">{macro.name}</strong>
                <span className="quiet">
                  {macro.about ? ` ${macro.about}.` : ''} {macro.parameters.length > 0 ? `Reads ${macro.parameters.join(', ')}.` : ''}
                </span>
              </li>
            ))}
          </ul>
        </div>
      </DialogContent>
      <DialogActions>
        <Button variant="text" onClick={onClose}>
          Leave it as it was
        </Button>
        <Button
          variant="contained"
          onClick={() => {
            onTake(draft.trim() ? draft : undefined)
            onClose()
          }}
        >
          Keep it on the card
        </Button>
      </DialogActions>
    </Dialog>
  )
}
