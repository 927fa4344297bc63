const key = 'mill-card.who'

/** Who works at this browser, as they last said; empty where they have not. */
export function whoHere(): string {
  try {
    return localStorage.getItem(key) ?? ''
  } catch {
    return ''
  }
}

/** Remembers who works at this browser. */
export function rememberWho(who: string): void {
  try {
    localStorage.setItem(key, who)
  } catch {
    // it is asked again
  }
}
