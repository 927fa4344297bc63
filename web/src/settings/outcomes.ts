import type { Outcome } from '../api/client'
import type { Setting } from '../open-document/description'

/** What a print can be better in: its name, and what one asks for. */
export const outcomes: Record<Outcome, { word: string; raised: string; ask: string }> = {
  time: { word: 'time', raised: 'time', ask: 'less time' },
  strength: { word: 'strength', raised: 'strength', ask: 'stronger' },
  surface: { word: 'surface', raised: 'surface', ask: 'a better surface' },
  accuracy: { word: 'accuracy', raised: 'accuracy', ask: 'truer measures' },
  adhesion: { word: 'hold', raised: 'hold on the bed', ask: 'a better hold on the bed' },
}

/** The words of what a setting moves, by which it is found too. */
export const movedBy = ({ tends }: Pick<Setting, 'tends'>) =>
  tends.map(([outcome]) => [outcome, ...Object.values(outcomes[outcome])].join(' ')).join(' ')
