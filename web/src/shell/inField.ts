/** Whether a key press belongs to a field and not to the page. */
export function inField(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement
  return target.matches('input:not([type=range]), textarea, select, [contenteditable=true]') || Boolean(target.closest('.cm-editor'))
}
