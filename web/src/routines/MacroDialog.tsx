import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useEffect, useState } from 'react'
import { useMacros } from './useRoutines'

const longest = 400_000

interface MacroDialogProps {
  text: string
  /** Whether it holds files of commands rather than a configuration with macros. */
  files: boolean
  onClose: () => void
  onTake: (text: string | undefined) => void
  /** Read at once. */
  given?: File
}

/** The owner's macros or command files: given as files or pasted; what is held is listed. */
export function MacroDialog({ text, files, onClose, onTake, given }: MacroDialogProps) {
  const [draft, setDraft] = useState(text)
  const macros = useMacros(draft, files)
  async function take(chosen: File[]) {
    const small = chosen.filter((file) => file.size <= longest)
    const texts = await Promise.all(small.map((file) => file.text()))
    if (!files) return texts[0] !== undefined && setDraft(texts[0])
    const added = small.map((file, i) => `[${file.name}]\n${texts[i]}`)
    setDraft((before) => [before.trim(), ...added].filter(Boolean).join('\n'))
  }
  useEffect(() => {
    void Promise.resolve(given).then((file) => file && take([file]))
    // once: more files are added by hand
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [given])
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="md">
      <DialogTitle>{files ? 'Command files' : 'Macro file'}</DialogTitle>
      <DialogContent className="macro-dialog">
        <p className="quiet">
          {files
            ? 'The files that the machine runs for M98 and for changes of tool (tfree0.g, tpre1.g, tpost1.g). A line ' +
              'with the name in square brackets begins each; the dry run steps into them. '
            : 'The configuration of the machine, with its macro sections. Calls in routines are checked against it, ' +
              'and the dry run steps into it. '}
          <label className="link">
            {files ? 'add files' : 'choose a file'}
            <input
              type="file"
              hidden
              multiple={files}
              accept={files ? '.g,.gcode,.txt' : '.cfg,.ini,.conf,.txt'}
              onChange={(event) => void take([...(event.target.files ?? [])])}
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
            {macros.length === 0 && <li className="quiet">{files ? 'No file in it yet.' : 'No macro in it yet.'}</li>}
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
