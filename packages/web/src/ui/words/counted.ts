/** “1 state”, “11 states”. */
export function counted(number: number, word: string): string {
  return `${number} ${word}${number === 1 ? '' : 's'}`;
}
