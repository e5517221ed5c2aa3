/** Is this a place where keys are meant as text, or for a window, and not for the bench? */
export const isTyping = (element: HTMLElement): boolean =>
  element.closest('input, textarea, select, [role=dialog], [role=alertdialog]') !== null &&
  element.closest('.canvas-selects') === null;
