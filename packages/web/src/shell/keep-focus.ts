/** Keeps the focus near where it was when what had it goes away: on the page itself letters would be commands. */

const FOCUSABLE =
  'a[href], button, input, select, textarea, [tabindex]:not([tabindex="-1"]), [contenteditable="true"]';

function canTakeFocus(element: HTMLElement): boolean {
  return !element.matches(':disabled, [aria-hidden="true"] *') && element.tabIndex >= 0;
}

/** Where an element stood: what was around it, the nearest first, with its place among the children there. */
type Place = { around: Element; at: number }[];

function placeOf(element: Element): Place {
  const place: Place = [];
  for (let inner = element; inner.parentElement; inner = inner.parentElement)
    place.push({
      around: inner.parentElement,
      at: [...inner.parentElement.children].indexOf(inner),
    });
  return place;
}

/** The nearest to a place that can take the focus: after it, before it, or what is around it; null where the whole page was replaced. */
function nearestTo(place: Place): HTMLElement | null {
  for (const { around, at } of place) {
    if (!around.isConnected) continue;
    // All of a page lies beside its header.
    if (around === document.body || around.querySelector('header')) return null;
    if (around instanceof HTMLElement && around.matches(FOCUSABLE) && canTakeFocus(around))
      return around;
    const inside = [...around.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(canTakeFocus);
    if (inside.length === 0) continue;
    const { children } = around;
    const from = children[Math.min(at, children.length - 1)];
    const isFrom = (element: Element) =>
      from.contains(element) ||
      (from.compareDocumentPosition(element) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;
    return inside.find(isFrom) ?? inside[inside.length - 1];
  }
  return null;
}

/** Milliseconds in which what closes can give the focus back itself. */
const GIVEN_BACK = 60;

/** Watches the focus of the page. Returns a cancel function. */
export function keepFocus(): () => void {
  let last: Element | null = null;
  let place: Place = [];
  let timer: ReturnType<typeof setTimeout> | undefined;
  const isLost = () =>
    last !== null &&
    (document.activeElement === document.body || document.activeElement === null) &&
    (!last.isConnected || last.matches(':disabled'));
  const onFocus = ({ target }: FocusEvent) => {
    if (!(target instanceof Element)) return;
    last = target;
    place = placeOf(target);
  };
  const observer = new MutationObserver(() => {
    if (!isLost()) return;
    clearTimeout(timer);
    timer = setTimeout(() => {
      if (isLost()) nearestTo(place)?.focus();
    }, GIVEN_BACK);
  });
  document.addEventListener('focusin', onFocus);
  observer.observe(document.body, {
    childList: true,
    subtree: true,
    attributes: true,
    attributeFilter: ['disabled'],
  });
  return () => {
    clearTimeout(timer);
    document.removeEventListener('focusin', onFocus);
    observer.disconnect();
  };
}
