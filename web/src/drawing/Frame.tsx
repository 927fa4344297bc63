/** How far within the sheet its drawing begins, px. */
export const border = 24

/** The frame of a drawing sheet with its zone numbers and letters, after ISO 5457. */
export function Frame({ width, height }: { width: number; height: number }) {
  const [outer, inner] = [10, border]
  const columns = Math.max(2, Math.round((width - 2 * outer) / 110))
  const rows = Math.max(2, Math.round((height - 2 * outer) / 165))
  const middle = (outer + inner) / 2
  const column = (width - 2 * outer) / columns
  const row = (height - 2 * outer) / rows
  return (
    <g className="frame" aria-hidden>
      <rect x={outer} y={outer} width={width - 2 * outer} height={height - 2 * outer} fill="none" stroke="var(--ink)" strokeWidth="0.8" />
      <rect x={inner} y={inner} width={width - 2 * inner} height={height - 2 * inner} fill="none" stroke="var(--ink)" strokeWidth="1.6" />
      {Array.from({ length: columns }, (_, i) => (
        <g key={i}>
          {i > 0 && (
            <path
              d={`M${outer + i * column} ${outer}V${inner}M${outer + i * column} ${height - inner}V${height - outer}`}
              stroke="var(--ink)"
              strokeWidth="0.8"
            />
          )}
          <text x={outer + (i + 0.5) * column} y={middle + 3.5} textAnchor="middle">
            {i + 1}
          </text>
          <text x={outer + (i + 0.5) * column} y={height - middle + 3.5} textAnchor="middle">
            {i + 1}
          </text>
        </g>
      ))}
      {Array.from({ length: rows }, (_, i) => (
        <g key={i}>
          {i > 0 && (
            <path
              d={`M${outer} ${outer + i * row}H${inner}M${width - inner} ${outer + i * row}H${width - outer}`}
              stroke="var(--ink)"
              strokeWidth="0.8"
            />
          )}
          <text x={middle} y={outer + (i + 0.5) * row + 3.5} textAnchor="middle">
            {String.fromCharCode(65 + i)}
          </text>
          <text x={width - middle} y={outer + (i + 0.5) * row + 3.5} textAnchor="middle">
            {String.fromCharCode(65 + i)}
          </text>
        </g>
      ))}
    </g>
  )
}
