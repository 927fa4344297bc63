import type { Limits } from '../units/limits'
import { NumberField } from '../units/NumberField'

interface TypedOverProps {
  /** Where it stands on the drawing, px. */
  x: number
  y: number
  label: string
  value: number | undefined
  limits: Limits
  onChange: (value: number | undefined) => void
  onClose: () => void
}

/** The field in which a dimension is typed over where it stands. */
export function TypedOver({ x, y, label, value, limits, onChange, onClose }: TypedOverProps) {
  return (
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- the keys of the field within end it
    <form
      className="over"
      style={{ left: x, top: y }}
      onSubmit={(event) => event.preventDefault()}
      onBlur={onClose}
      onKeyDown={(event) => (event.key === 'Enter' || event.key === 'Escape') && onClose()}
      ref={(form) => form?.querySelector('input')?.focus()}
    >
      <NumberField value={value} label={`${label}, on the drawing`} limits={limits} required onChange={onChange} />
    </form>
  )
}
