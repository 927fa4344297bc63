/** The chunk that draws space; asked for early, it is there when the trial is. */
export const fetchSpace = () => import('./SpaceOfTrial')
