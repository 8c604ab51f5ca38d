/** Levenshtein distance between two short words, counting a swap of neighbours as one step. */
function editDistance(a: string, b: string): number {
  const rows: number[][] = [];
  for (let i = 0; i <= a.length; i++) {
    rows.push([i]);
    for (let j = 1; j <= b.length; j++) {
      if (i === 0) {
        rows[0].push(j);
        continue;
      }
      const change = a[i - 1] === b[j - 1] ? 0 : 1;
      let best = Math.min(rows[i - 1][j] + 1, rows[i][j - 1] + 1, rows[i - 1][j - 1] + change);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) {
        best = Math.min(best, rows[i - 2][j - 2] + 1);
      }
      rows[i].push(best);
    }
  }
  return rows[a.length][b.length];
}

/** The known name closest to `word`, or undefined where none is close enough to be meant. */
export function nearestName(word: string, known: Iterable<string>): string | undefined {
  let best: string | undefined;
  let bestDistance = Math.max(2, Math.floor(word.length / 3)) + 1;
  for (const name of known) {
    const distance = editDistance(word.toLowerCase(), name.toLowerCase());
    if (distance < bestDistance) {
      best = name;
      bestDistance = distance;
    }
  }
  return best;
}

/** ` Did you mean “x”?`, or the list of what there is, or nothing: the tail of a wrong-name message. */
export function suggestion(word: string, known: Iterable<string>): string {
  const names = [...known];
  const nearest = nearestName(word, names);
  if (nearest !== undefined) return ` Did you mean “${nearest}”?`;
  if (names.length > 0 && names.length <= 12) return ` Known here: ${names.join(', ')}.`;
  return '';
}
