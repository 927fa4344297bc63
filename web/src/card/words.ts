/** A choice among words. */
export interface Choice {
  value: string
  label: string
}

/** Firmware flavours that a card can name. */
export const flavours: Choice[] = [
  { value: 'marlin', label: 'Marlin' },
  { value: 'reprapfirmware', label: 'RepRapFirmware' },
]

export const housings: Choice[] = [
  { value: 'open', label: 'open' },
  { value: 'closed', label: 'closed' },
  { value: 'heated-chamber', label: 'heated chamber' },
]

/** What a choice is called; undefined where it is not made. */
export const wordOf = (choices: Choice[], value: string | null | undefined): string | undefined =>
  choices.find((choice) => choice.value === value)?.label
