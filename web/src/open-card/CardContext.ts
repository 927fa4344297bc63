import { createContext, useContext } from 'react'
import type { Card } from '../api/client'
import type { DocumentState } from '../open-document/documentStore'
import type { Limits } from '../units/limits'
import type { FactGroup } from './facts'
import type { Choice } from './words'

/** The card that a page edits, and which fact is pointed at. */
export interface OpenCard extends DocumentState<Card> {
  limits: (pointer: string) => Limits
  facts: FactGroup[]
  /** The choices that there are for a fact. */
  choices: (pointer: string) => Choice[]
  lit: string | undefined
  light: (pointer: string | undefined) => void
}

export const CardContext = createContext<OpenCard | undefined>(undefined)

/** The open card; only below its page. */
export function useCard(): OpenCard {
  const card = useContext(CardContext)
  if (!card) throw new Error('There is no open card here.')
  return card
}
