/** Does what can wait once the page has nothing else to do; soon, where a browser can't say when that is. */
export function whenIdle(work: () => void): void {
  if ('requestIdleCallback' in window) window.requestIdleCallback(work);
  else setTimeout(work, 1000);
}
