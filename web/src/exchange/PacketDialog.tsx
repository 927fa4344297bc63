import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useState } from 'react'
import { sentenceOf } from '../api/client'
import type { Kind } from '../open-document/documents'
import { rememberWho, whoHere } from './who'
import { saveJson, savePacket } from './packets'
import './packet-dialog.css'

interface PacketDialogProps {
  /** What is saved, in a word or two: a name, or how many. */
  what: string
  /** Ids of the documents; nothing for all there are. */
  ids?: string[]
  /** Where it is one document, which can be saved alone too. */
  alone?: { kind: Kind; id: string }
  onClose: () => void
}

/** Saves documents as a packet with what they need, or one of them alone. */
export function PacketDialog({ what, ids, alone, onClose }: PacketDialogProps) {
  const [form, setForm] = useState<'packet' | 'json'>('packet')
  const [history, setHistory] = useState(true)
  const [who, setWho] = useState(whoHere)
  const [why, setWhy] = useState('')
  const [saving, setSaving] = useState(false)
  const [failure, setFailure] = useState('')
  const save = async () => {
    setSaving(true)
    setFailure('')
    try {
      rememberWho(who)
      if (form === 'json' && alone) await saveJson(alone.kind, alone.id)
      else await savePacket({ ...(ids && { documents: ids }), history, ...(who && { who }), ...(why && { why }) }, what)
      onClose()
    } catch (problem) {
      setFailure(sentenceOf(problem))
      setSaving(false)
    }
  }
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <form
        onSubmit={(event) => {
          event.preventDefault()
          void save()
        }}
      >
        <DialogTitle>Save {what}</DialogTitle>
        <DialogContent className="packet-dialog">
          {alone && (
            <fieldset>
              <legend className="quiet">as</legend>
              <label>
                <input type="radio" name="form" checked={form === 'packet'} onChange={() => setForm('packet')} /> a packet: a zip with all
                that it needs
              </label>
              <label>
                <input type="radio" name="form" checked={form === 'json'} onChange={() => setForm('json')} /> the document alone, as JSON
              </label>
            </fieldset>
          )}
          {form === 'packet' && (
            <>
              <label>
                <input type="checkbox" checked={history} onChange={(event) => setHistory(event.target.checked)} /> with revisions, variants,
                and prints with their pictures
              </label>
              <label className="quiet">
                who packs it
                <input className="plain-field" value={who} maxLength={120} onChange={(event) => setWho(event.target.value)} />
              </label>
              <label className="quiet">
                what it is for
                <input className="plain-field" value={why} maxLength={1000} onChange={(event) => setWhy(event.target.value)} />
              </label>
              <p className="quiet">
                Trials bring their card, filaments, recipe and meshes. Proofs and programs stay here: they are made anew where the packet is
                taken in.
              </p>
            </>
          )}
          {failure && (
            <p className="trouble" role="alert">
              {failure}
            </p>
          )}
        </DialogContent>
        <DialogActions>
          <Button variant="text" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" variant="contained" disabled={saving}>
            {saving ? 'Packing …' : 'Save'}
          </Button>
        </DialogActions>
      </form>
    </Dialog>
  )
}
