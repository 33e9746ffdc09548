/**
 * Where the focus goes when what had it is gone.
 */

/** Frames that a change may take to be drawn. */
const FRAMES = 30;

/** Puts the focus on an element as soon as what had it has gone, so that a maker at the keys stays where the work is. */
export function keepFocusNear(selector: string, frames = FRAMES): void {
  requestAnimationFrame(() => {
    const { activeElement } = document;
    const lost = activeElement === null || activeElement === document.body;
    if (lost) document.querySelector<HTMLElement>(selector)?.focus({ preventScroll: true });
    else if (frames > 0) keepFocusNear(selector, frames - 1);
  });
}
