import { Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material'
import { useState } from 'react'
import { bytes, send } from '../api/send'
import { answerOf, sentenceOf } from '../api/client'
import { boxOf, ringsPath } from '../drawing/outline'
import { fitted } from '../drawing/view'
import { parseEntry } from '../units/entry'
import { plain } from '../units/format'

interface OutlineDialogProps {
  title: string
  /** Corners as they are, mm. */
  points: number[][]
  onClose: (points?: number[][]) => void
}

const units = [
  { label: '1 unit is 1 mm', factor: 1 },
  { label: '1 unit is 1 inch', factor: 25.4 },
  { label: '1 unit is 1/96 inch (screen)', factor: 25.4 / 96 },
  { label: '1 unit is 1/72 inch (print)', factor: 25.4 / 72 },
]
const preview = 220

/** Corners typed, pasted as an SVG path, or taken from a drawing or a mesh; with a preview and the question of the unit. */
export function OutlineDialog({ title, points, onClose }: OutlineDialogProps) {
  const [text, setText] = useState(points.map(([x, y]) => `${plain(x!)}, ${plain(y!)}`).join('\n'))
  const [read, setRead] = useState<number[][]>()
  const [factor, setFactor] = useState(1)
  const [problem, setProblem] = useState<string>()
  const typed = parseCorners(text)
  const shown = read?.map(([x, y]) => [x! * factor, y! * factor]) ?? ('points' in typed ? typed.points : undefined)
  const wrong = problem ?? (!read && 'error' in typed ? typed.error : undefined)

  const take = async (body: Blob | string) => {
    setProblem(undefined)
    try {
      const answer = await send('/api/outlines', { method: 'POST', ...bytes(body) })
      const outline = await answerOf<{ points: number[][]; millimetresPerUnit?: number }>(answer)
      setRead(outline.points)
      setFactor(outline.millimetresPerUnit ?? 1)
    } catch (failure) {
      setProblem(sentenceOf(failure))
    }
  }
  const box = shown ? boxOf(shown) : undefined
  const known = units.some((unit) => unit.factor === factor)

  return (
    <Dialog open onClose={() => onClose()} maxWidth="sm" fullWidth>
      <DialogTitle>{title}</DialogTitle>
      <DialogContent>
        <div
          className="outline-dialog"
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault()
            const [file] = event.dataTransfer.files
            if (file) void take(file)
          }}
        >
          <label>
            <span className="quiet">corners in mm, one “x, y” a line; or paste an SVG path</span>
            <textarea
              className="corners"
              rows={9}
              spellCheck={false}
              aria-label="corners"
              value={text}
              onChange={(event) => {
                setText(event.target.value)
                setRead(undefined)
                setProblem(undefined)
                if (/^\s*[Mm]\s*[-\d.]/.test(event.target.value)) void take(event.target.value)
              }}
            />
          </label>
          <div>
            <svg width={preview} height={preview} role="img" aria-label="preview of the outline" className="outline-preview">
              {shown && box && (
                <path
                  d={ringsPath(
                    [shown],
                    fitted(
                      { x: box[0], y: box[1], width: box[2] - box[0] || 1, depth: box[3] - box[1] || 1 },
                      { x: 10, y: 10, width: preview - 20, height: preview - 20 },
                    ),
                  )}
                />
              )}
            </svg>
            <p className="mono">{box && `${plain(box[2] - box[0], 2)} × ${plain(box[3] - box[1], 2)} mm, ${shown!.length} corners`}</p>
          </div>
          <label className="link">
            take it from an SVG drawing or an STL mesh of the plate …
            <input
              type="file"
              accept=".svg,.stl"
              hidden
              data-outline-file
              onChange={(event) => {
                const [file] = event.target.files ?? []
                if (file) void take(file)
                event.target.value = ''
              }}
            />
          </label>
          {read && (
            <label>
              <span className="quiet">which size is meant? </span>
              <select className="plain-field" aria-label="unit" value={factor} onChange={(event) => setFactor(Number(event.target.value))}>
                {!known && <option value={factor}>as the file says: 1 unit is {plain(factor, 4)} mm</option>}
                {units.map((unit) => (
                  <option key={unit.factor} value={unit.factor}>
                    {unit.label}
                  </option>
                ))}
              </select>
            </label>
          )}
        </div>
        {wrong && (
          <p className="trouble" role="alert">
            {wrong}
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button variant="text" onClick={() => onClose()}>
          Leave it
        </Button>
        <Button
          variant="contained"
          disabled={!shown || Boolean(wrong)}
          onClick={() => onClose(shown!.map(([x, y]) => [round(x!), round(y!)]))}
        >
          Take this outline
        </Button>
      </DialogActions>
    </Dialog>
  )
}

const round = (value: number) => Math.round(value * 1000) / 1000

/** Corners from lines such as `12,5; 40` or `12.5, 40`. With commas for decimals, a semicolon or a blank parts x from y. */
function parseCorners(text: string): { points: number[][] } | { error: string } {
  const points: number[][] = []
  for (const [i, line] of text.split('\n').entries()) {
    if (!line.trim()) continue
    const parts = (line.includes(';') ? line.split(';') : line.split(/,\s+|\s+|,/)).filter((part) => part.trim())
    const values = parts.map(parseEntry)
    if (values.length !== 2 || values.some((value) => 'error' in value))
      return { error: `Line ${i + 1} is not a corner: two numbers are needed, such as “12.5, 40”.` }
    points.push(values.map((value) => (value as { value: number }).value))
  }
  return points.length < 3 ? { error: 'An outline needs at least three corners.' } : { points }
}
