import type { PreviewLine } from '../api/client'
import { clockTime } from '../units/format'

/** The lines of a macro as it ran, with what they did. */
export function MacroSteps({ line }: { line: PreviewLine }) {
  return (
    <section className="macro-steps" aria-label="Inside the macro">
      <h2 className="caps">Inside {line.text.trim().split(/\s/)[0]}</h2>
      <table>
        <tbody>
          {(line.steps ?? []).map((step, i) => (
            <tr key={i}>
              <td className="mono">{step.text}</td>
              <td>{step.effect}</td>
              <td className="mono">{step.seconds > 0.05 ? clockTime(step.seconds) : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {line.unfollowed && (
        <p className="why">Only the running printer knows: {line.unfollowed.join(', ')}. What hangs on it is left out here.</p>
      )}
    </section>
  )
}
