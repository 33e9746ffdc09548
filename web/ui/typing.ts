/** True while keys belong to a field that is being filled in. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName));
}

/** True while a field has text that the piece has not got yet: undo is the field's own then. */
export function hasUntaken(target: EventTarget | null): boolean {
  return isTyping(target) && !(target instanceof HTMLSelectElement) && !(target as HTMLElement).hasAttribute("data-taken");
}
