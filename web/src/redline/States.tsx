import { useQuery } from '@tanstack/react-query'
import { answerOf } from '../api/client'
import { send } from '../api/send'
import { useDropped } from '../exchange/dropped'
import { usePatterns, versionState } from '../open-card/patterns'
import { documents, type Kind } from '../open-document/documents'
import type { SetAside } from '../open-document/documentStore'
import type { Against } from './useOther'

interface StatesProps {
  kind: Kind
  id: string
  savedAt: string
  clashes: boolean
  setAside: readonly SetAside[]
  label: string
  /** What it says where nothing is chosen. */
  none: string
  value: Against
  onChange: (to: Against) => void
}

/** The states that a document can be held against: its own, other documents, patterns, files. */
export function States({ kind, id, savedAt, clashes, setAside, label, none, value, onChange }: StatesProps) {
  const { data: revisions } = useQuery({
    queryKey: ['letters', kind, id, savedAt],
    queryFn: async () => answerOf<{ letter: string; note: string }[]>(await send(`/api/${kind}/${id}/revisions`)),
  })
  const { data: others } = useQuery({ queryKey: ['list', kind], queryFn: () => documents.list(kind) })
  const { data: patterns } = usePatterns()
  const sources = [...new Set((patterns ?? []).map(({ sourceName }) => sourceName))]
  const held = useDropped((dropped) => dropped.held)
  const files = Object.entries(held).filter(([, one]) => one.kind === kind)
  const one = kind.slice(0, -1)
  return (
    <select className="plain-field" aria-label={label} value={value} onChange={(event) => onChange(event.target.value)}>
      <option value="">{none}</option>
      {clashes && <option value="saved">as it is saved</option>}
      <Group label="kept in this browser" rows={setAside.map(({ key }, i) => [`kept.${key}`, `kept draft ${i + 1}`])} />
      <Group
        label={`revisions of this ${one}`}
        rows={(revisions ?? []).map(({ letter, note }) => [`revision.${letter}`, `${letter}: ${note || 'without a note'}`])}
      />
      <Group label="files" rows={files.map(([key, { path }]) => [`file.${key}`, path])} />
      <Group
        label={`other ${kind}`}
        rows={(others ?? [])
          .filter((other) => other.id !== id)
          .map((other) => [`document.${other.id}`, other.name || `${one} without a name`])}
      />
      {kind === 'cards' &&
        sources.map((source) => (
          <Group
            key={source}
            label={`patterns of ${source}`}
            rows={(patterns ?? [])
              .filter(({ sourceName }) => sourceName === source)
              .flatMap(({ id, name, versions }) =>
                versions.map(({ version }): [Against, string] => [
                  versionState(id, version),
                  versions.length > 1 ? `${name}, version ${version}` : name,
                ]),
              )}
          />
        ))}
    </select>
  )
}

function Group({ label, rows }: { label: string; rows: [Against, string][] }) {
  if (rows.length === 0) return null
  return (
    <optgroup label={label}>
      {rows.map(([value, name]) => (
        <option key={value} value={value}>
          {name}
        </option>
      ))}
    </optgroup>
  )
}
