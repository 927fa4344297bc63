import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { api, dataOf } from '../api/client'
import { useCard } from '../open-card/CardContext'
import { known } from '../open-card/sources'
import { withValue } from '../open-document/pointer'
import { plain } from '../units/format'

/** A firmware's settings report, pasted or dropped: its facts beside the card's, to be taken one by one. */
export function ReportDialog({ onClose, given }: { onClose: () => void; given?: File }) {
  const { document: card, change } = useCard()
  const [text, setText] = useState('')
  const [left, setLeft] = useState<string[]>([])
  const { data } = useQuery({
    queryKey: ['settings-report', text, JSON.stringify(card)],
    enabled: text.trim() !== '',
    placeholderData: keepPreviousData,
    queryFn: async ({ signal }) =>
      dataOf(await api.POST('/api/settings-report', { body: { card: { ...card, sources: undefined }, text }, signal })),
  })
  useEffect(() => {
    void given?.text().then(setText)
  }, [given])
  const facts = text.trim() === '' ? [] : (data?.facts ?? [])
  const corner = text.trim() === '' ? undefined : data?.corner
  const chosen = facts.filter((fact) => fact.differs && !left.includes(fact.pointer))
  const take = () => {
    change((before) => {
      let next = before
      for (const fact of chosen) next = withValue(next, fact.pointer, fact.new)
      if (corner && !left.includes('/motion/corner')) next = withValue(next, '/motion/corner', corner)
      return known(
        next,
        [...chosen.map((fact) => fact.pointer), ...(corner && !left.includes('/motion/corner') ? ['/motion/corner'] : [])],
        'reported-by-firmware',
      )
    })
    onClose()
  }
  const toggle = (pointer: string) => setLeft(left.includes(pointer) ? left.filter((p) => p !== pointer) : [...left, pointer])
  return (
    <Dialog open onClose={onClose} maxWidth="md">
      <DialogTitle>What the firmware says of itself</DialogTitle>
      <DialogContent>
        <div
          className="report-dialog"
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault()
            void event.dataTransfer.files[0]?.text().then(setText)
          }}
        >
          <label className="small-field">
            Send M503 (or M92, M203, M201, M566, G31 …) to the machine and paste what it answers, or drop the file here.
            <textarea
              className="corners"
              rows={7}
              aria-label="settings report"
              value={text}
              maxLength={200_000}
              placeholder={'echo: M92 X80.00 Y80.00 Z400.00 E93.00\necho: M203 X200.00 Y200.00 Z12.00 E60.00'}
              onChange={(event) => setText(event.target.value)}
            />
          </label>
          {facts.length > 0 && (
            <div className="report-facts">
              <table className="list">
                <thead>
                  <tr>
                    <th>take</th>
                    <th>fact</th>
                    <th className="number">card</th>
                    <th className="number">firmware</th>
                  </tr>
                </thead>
                <tbody>
                  {facts.map((fact) => (
                    <tr key={fact.pointer} className={fact.differs ? undefined : 'quiet'}>
                      <td>
                        {fact.differs && (
                          <input
                            type="checkbox"
                            aria-label={`take ${fact.label}`}
                            checked={!left.includes(fact.pointer)}
                            onChange={() => toggle(fact.pointer)}
                          />
                        )}
                      </td>
                      <td title={fact.line}>{fact.label}</td>
                      <td className="mono number">{fact.old == null ? '–' : plain(fact.old)}</td>
                      <td className="mono number">
                        {plain(fact.new)} {fact.unit}
                      </td>
                    </tr>
                  ))}
                  {corner && (
                    <tr>
                      <td>
                        <input
                          type="checkbox"
                          aria-label="take how corners are taken"
                          checked={!left.includes('/motion/corner')}
                          onChange={() => toggle('/motion/corner')}
                        />
                      </td>
                      <td>how corners are taken</td>
                      <td className="mono number">{card.motion?.corner ? plain(card.motion.corner.value, 4) : '–'}</td>
                      <td className="mono number">
                        {plain(corner.value, 4)} {corner.kind === 'junction-deviation' ? 'mm deviation' : 'mm/s jump'}
                      </td>
                    </tr>
                  )}
                </tbody>
              </table>
            </div>
          )}
          {text.trim() !== '' && data && facts.length === 0 && !corner && <p className="quiet">Nothing in it is a fact of a card.</p>}
          {(data?.leftOut ?? []).map((line) => (
            <p key={line} className="quiet">
              {line}
            </p>
          ))}
        </div>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave the card as it is</Button>
        <Button variant="contained" disabled={chosen.length === 0 && !(corner && !left.includes('/motion/corner'))} onClick={take}>
          Take {chosen.length + (corner && !left.includes('/motion/corner') ? 1 : 0)} facts
        </Button>
      </DialogActions>
    </Dialog>
  )
}
