interface OnPaperProps {
  /** Address of the document in the API. */
  of: string
  /** A revision's letter; the draft where nothing is said. */
  revision?: string
}

/** The ways to drawing sheets of a document, PDF. */
export function OnPaper({ of, revision }: OnPaperProps) {
  const more = revision ? `&revision=${revision}` : ''
  return (
    <span className="on-paper">
      on paper{' '}
      {['a3', 'a4'].map((size) => (
        <a
          key={size}
          href={`${of}/sheet.pdf?size=${size}${more}`}
          target="_blank"
          rel="noreferrer"
          aria-label={`On ${size.toUpperCase()} paper`}
        >
          {size.toUpperCase()}{' '}
        </a>
      ))}
    </span>
  )
}
