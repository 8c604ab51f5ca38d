/** Does something once no dialog or list is open any more: one that closes would take the focus back. */
export function whenFree(act: () => void): void {
  const wait = () => {
    const open = document.querySelector('[role="dialog"], [role="menu"]');
    // One frame more: what has closed gives the focus back in the next.
    requestAnimationFrame(open ? wait : () => requestAnimationFrame(act));
  };
  wait();
}
