import type { Filament } from '../api/client'

const [from, to] = [140, 310]
const x = (t: number) => 10 + ((t - from) / (to - from)) * 380

/** The nozzle's temperatures on one scale: the spool's window with its tolerance, where it oozes, what is printed with. */
export function HeatWindow({ filament }: { filament: Filament }) {
  const nozzle = filament.nozzle ?? {}
  const { windowFrom: low, windowTo: high } = nozzle
  const tolerance = nozzle.tolerance ?? 10
  const marks = [
    ['oozes', nozzle.oozesFrom],
    ['standby', nozzle.standby],
    ['layers', nozzle.others],
    ['first', nozzle.first],
  ] as const
  const known = marks.filter((mark): mark is [(typeof mark)[0], number] => typeof mark[1] === 'number')
  const outside =
    low != null && high != null
      ? known.filter(([name, t]) => (name === 'layers' || name === 'first') && (t < low - tolerance || t > high + tolerance))
      : []
  const window = `the spool’s window of ${low} to ${high} °C`
  return (
    <section aria-label="Temperatures">
      <h2 className="caps">Nozzle temperatures</h2>
      <svg className="heat-window" viewBox="0 0 400 92" role="img" aria-label={known.map(([name, t]) => `${name} ${t} °C`).join(', ')}>
        {low != null && high != null && (
          <>
            <rect x={x(low - tolerance)} y="30" width={x(high + tolerance) - x(low - tolerance)} height="16" fill="var(--lit)" />
            <rect x={x(low)} y="30" width={x(high) - x(low)} height="16" fill="none" stroke="var(--ink)" strokeWidth="1.4" />
            <text x={(x(low) + x(high)) / 2} y="24" textAnchor="middle">
              window {low} to {high} ± {tolerance} °C
            </text>
          </>
        )}
        <path d={`M10 54H390${[150, 200, 250, 300].map((t) => `M${x(t)} 54v5`).join('')}`} stroke="var(--ink)" fill="none" />
        {[150, 200, 250, 300].map((t) => (
          <text key={t} x={x(t)} y="71" textAnchor="middle" className="quiet">
            {t}
          </text>
        ))}
        {known.map(([name, t], i) => (
          <g key={name}>
            <path
              d={`M${x(t)} 28v26`}
              stroke={outside.some(([o]) => o === name) ? 'var(--madder)' : 'var(--slate)'}
              strokeWidth="2"
              strokeDasharray={name === 'oozes' || name === 'standby' ? '3 2' : undefined}
            />
            <text x={x(t)} y={i % 2 ? 10 : 86} textAnchor="middle">
              {name}
            </text>
          </g>
        ))}
      </svg>
      {outside.map(([name, t]) => (
        <p key={name} className="reason no">
          {t} °C for the {name === 'first' ? 'first layer' : 'layers'} lies outside {window} by more than {tolerance} °C.
        </p>
      ))}
    </section>
  )
}
