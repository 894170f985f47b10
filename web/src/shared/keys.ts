/** Whether keys typed there are text. */
export function isField(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

/** The letter or sign of a key press: inside a field only with Alt, elsewhere alone or with Alt; null for none. */
export function keyPressed(event: KeyboardEvent): string | null {
  if (event.ctrlKey || event.metaKey) return null;
  if (!event.altKey) {
    // A list that is searched is told of a key at its own row while the key goes to the field: it is text all the same.
    if (isField(event.target) || isField(document.activeElement)) return null;
    // Caps lock is no Shift.
    if (/^[a-z]$/i.test(event.key)) return event.shiftKey ? event.key.toUpperCase() : event.key.toLowerCase();
    return event.key;
  }
  if (event.code === "Slash") return event.shiftKey ? "?" : "/";
  const letter = /^Key([A-Z])$/.exec(event.code)?.[1];
  return letter ? (event.shiftKey ? letter : letter.toLowerCase()) : null;
}
