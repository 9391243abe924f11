/** Focus is never lost: where what had it went away, the content has it. */
export function keepFocus() {
  if (!document.activeElement || document.activeElement === document.body) toContent()
}

/** The content has the focus: keys are its own. */
export function toContent() {
  document.getElementById('main')?.focus({ preventScroll: true })
}
