/** Whether a value from outside is a place: x and y in metres, both finite. */
export function isPlace(value: unknown): value is [number, number] {
  return Array.isArray(value) && value.length === 2 && value.every(Number.isFinite);
}
