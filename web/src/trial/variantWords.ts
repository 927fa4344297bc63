import type { VariantAnswer } from '../api/client'
import type { Setting } from '../open-document/description'
import { plain } from '../units/format'

/** What else of a trial may be otherwise, in words. */
const otherwise: Record<string, string> = {
  parts: 'parts lie or stand otherwise',
  zones: 'other zones',
  stops: 'other events',
  heights: 'other bands of heights',
  sequence: 'another print order',
  mode: 'another mode',
  filament: 'another filament',
  secondFilament: 'another second filament',
  loaded: 'other filaments in the nozzles',
  recipe: 'another recipe',
  limits: 'other limits',
  card: 'another card',
}

/** What a kept state has that is otherwise now, in words. */
export function differencesOf({ recipe, otherwise: members }: VariantAnswer, settings: readonly Setting[]): string[] {
  const own = Object.entries(recipe).map(([pointer, value]) => {
    const setting = settings.find((one) => one.pointer === pointer)
    if (!setting) return 'other settings'
    return value == null
      ? `no ${setting.label}`
      : `${setting.label} ${wordsOf(value, setting.percent)}${setting.limits.unit ? ` ${setting.limits.unit}` : ''}`
  })
  return [...new Set([...own, ...members.map((member) => otherwise[member] ?? 'other settings')])]
}

function wordsOf(value: unknown, percent = false): string {
  if (typeof value === 'number') return percent ? `${plain(100 * value)} %` : plain(value)
  if (typeof value === 'boolean') return value ? 'on' : 'off'
  return typeof value === 'string' ? value : 'otherwise'
}
