/** A choice among words. */
export interface Choice {
  value: string
  label: string
}

/** Firmware flavours that a card can name. */
export const flavours: Choice[] = [
  { value: 'marlin', label: 'Marlin' },
  { value: 'reprapfirmware', label: 'RepRapFirmware' },
  { value: 'klipper', label: 'Klipper' },
  { value: 'repetier', label: 'Repetier' },
  { value: 'smoothieware', label: 'Smoothieware' },
  { value: 'reprap', label: 'plain RepRap' },
]

export const housings: Choice[] = [
  { value: 'open', label: 'open' },
  { value: 'closed', label: 'closed' },
  { value: 'heated-chamber', label: 'heated chamber' },
]

/** What a choice is called; undefined where it is not made. */
export const wordOf = (choices: Choice[], value: string | null | undefined): string | undefined =>
  choices.find((choice) => choice.value === value)?.label

/** What nozzles are made of. */
export const nozzleMaterials: Choice[] = [
  { value: 'brass', label: 'brass' },
  { value: 'hardened', label: 'hardened steel' },
  { value: 'other', label: 'something else' },
]

/** How well a nozzle stands filled filament. */
export const wearRatings: Choice[] = [
  { value: 'low', label: 'as brass' },
  { value: 'middling', label: 'now and then a spool' },
  { value: 'high', label: 'as hardened steel' },
]

/** Kinds of fan. */
export const fanKinds: Choice[] = [
  { value: 'part', label: 'on the part' },
  { value: 'side', label: 'from the side' },
  { value: 'chamber', label: 'in the housing' },
  { value: 'hot-end', label: 'on the hot end' },
]

/** Kinds of levelling probe. */
export const probeKinds: Choice[] = [
  { value: 'none', label: 'none' },
  { value: 'switch', label: 'switch' },
  { value: 'touch-pin', label: 'touch pin' },
  { value: 'inductive', label: 'inductive' },
  { value: 'nozzle-contact', label: 'the nozzle itself' },
]

/** Modes of two carriages. */
export const modeKinds: Choice[] = [
  { value: 'single', label: 'single' },
  { value: 'copy', label: 'copy' },
  { value: 'mirror', label: 'mirror' },
  { value: 'two-material', label: 'two materials' },
]

/** Kinds of motion. */
export const layouts: Choice[] = [
  { value: 'moving-bed', label: 'moving bed' },
  { value: 'fixed-bed', label: 'fixed bed, belts' },
  { value: 'crossed-belts', label: 'crossed belts' },
  { value: 'delta', label: 'delta' },
]

/** Ways to feed filament. */
export const feeds: Choice[] = [
  { value: 'direct', label: 'direct' },
  { value: 'long-tube', label: 'long tube' },
]
