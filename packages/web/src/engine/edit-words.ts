/** What a numbered edit is called; one below 0 is a change that was tried and not made. */
export function editWords(edit: number): string {
  return edit < 0 ? `tried change ${-edit}` : `edit ${edit}`;
}
