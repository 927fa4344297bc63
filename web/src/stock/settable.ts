import type { Filament, Recipe } from '../api/client'

/** Documents that are nothing but settings. */
export type Settable = Filament | Recipe
