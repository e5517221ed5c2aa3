/** The canvas shows fields, and they are chosen there rather than written in. */
const isOn = (element: HTMLElement, places: string): boolean =>
  element.closest(places) !== null && element.closest('.canvas-selects') === null;

/** Is this a place where keys are meant as text, or for a window, and not for the bench? */
export const isTyping = (element: HTMLElement): boolean =>
  isOn(element, 'input, textarea, select, [role=dialog], [role=alertdialog]');

/**
 * Does this place undo what is written in it, or is it a window? A list to choose from or a box to tick undoes nothing, nor
 * does a text that is as it was kept.
 */
export const undoesItself = (element: HTMLElement): boolean =>
  isOn(
    element,
    'input:not([type=checkbox], [type=radio], [data-as-kept=true]), textarea, [role=dialog], [role=alertdialog]',
  );
