import './about-fields.css'

interface AboutFieldsProps {
  document: { tags?: string[]; notes?: string | null }
  /** Whether the kind of document has notes. */
  notes?: boolean
  set: (pointer: string, value: unknown) => void
}

const mostTags = 20
const longestTag = 60

/** Words of a tag field: by commas, each once. */
export const tagsOf = (text: string): string[] =>
  [...new Set(text.split(',').map((tag) => tag.trim().slice(0, longestTag)))].filter(Boolean).slice(0, mostTags)

/** What an owner says of a document: the words by which it is found again, and notes. */
export function AboutFields({ document, notes = false, set }: AboutFieldsProps) {
  return (
    <div className="about-fields">
      <label className="quiet">
        tags
        <input
          key={(document.tags ?? []).join()}
          className="plain-field"
          defaultValue={(document.tags ?? []).join(', ')}
          placeholder="words to find it by, with commas"
          onBlur={(event) => {
            const tags = tagsOf(event.target.value)
            if (tags.join() !== (document.tags ?? []).join()) set('/tags', tags)
          }}
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        />
      </label>
      {notes && (
        <label className="quiet">
          notes
          <textarea
            className="plain-field"
            rows={Math.min(6, 1 + (document.notes ?? '').split('\n').length)}
            value={document.notes ?? ''}
            maxLength={10000}
            onChange={(event) => set('/notes', event.target.value || undefined)}
          />
        </label>
      )}
    </div>
  )
}
