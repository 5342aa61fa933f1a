/** The kit's dialog gives the focus to what is marked `autofocus` once it has opened: mark what the hand has gone to meanwhile. */
export function keepFocus(event: FocusEvent): void {
  const { currentTarget: within, target } = event
  if (!(within instanceof HTMLElement) || !(target instanceof HTMLElement)) return
  for (const marked of within.querySelectorAll('[autofocus]')) if (marked !== target) marked.removeAttribute('autofocus')
  target.setAttribute('autofocus', '')
}
