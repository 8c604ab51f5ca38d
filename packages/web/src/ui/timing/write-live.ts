/**
 * What changes with frames is written straight to elements. A write has the page laid out again even where
 * it changes nothing, so what stands there already is left alone.
 */

export function writeText(element: Element | null, text: string): void {
  if (element && element.textContent !== text) element.textContent = text;
}

export function writeAttribute(element: Element, name: string, value: string): void {
  if (element.getAttribute(name) !== value) element.setAttribute(name, value);
}
