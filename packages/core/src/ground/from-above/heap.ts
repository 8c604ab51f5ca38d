/** Cells by key, the smallest first. Cells of one key come out in an order that depends on nothing but what was put in. */
export interface Heap {
  cells: Int32Array;
  keys: Float64Array;
  size: number;
}

export function createHeap(): Heap {
  return { cells: new Int32Array(256), keys: new Float64Array(256), size: 0 };
}

function grow(heap: Heap): void {
  const cells = new Int32Array(heap.cells.length * 2);
  const keys = new Float64Array(heap.keys.length * 2);
  cells.set(heap.cells);
  keys.set(heap.keys);
  heap.cells = cells;
  heap.keys = keys;
}

export function push(heap: Heap, cell: number, key: number): void {
  if (heap.size === heap.cells.length) grow(heap);
  const { cells, keys } = heap;
  let i = heap.size++;
  while (i > 0) {
    const parent = (i - 1) >> 1;
    if (keys[parent] <= key) break;
    cells[i] = cells[parent];
    keys[i] = keys[parent];
    i = parent;
  }
  cells[i] = cell;
  keys[i] = key;
}

/** The cell with the smallest key, which leaves the heap. It must not be empty. */
export function pop(heap: Heap): number {
  const { cells, keys } = heap;
  const top = cells[0];
  const size = --heap.size;
  const cell = cells[size];
  const key = keys[size];
  let i = 0;
  for (;;) {
    let child = 2 * i + 1;
    if (child >= size) break;
    if (child + 1 < size && keys[child + 1] < keys[child]) child++;
    if (keys[child] >= key) break;
    cells[i] = cells[child];
    keys[i] = keys[child];
    i = child;
  }
  cells[i] = cell;
  keys[i] = key;
  return top;
}
