/**
 * Exponential, logarithm and powers, equal to the last bit in every engine: built of additions,
 * multiplications and divisions alone, which IEEE 754 fixes, after the method and constants of FreeBSD's
 * msun (`e_exp.c`, `e_log.c`). Errors stay below one unit in the last place.
 */

const LN2_HIGH = 6.9314718036912381649e-1;
const LN2_LOW = 1.90821492927058770002e-10;
const ONE_OVER_LN2 = 1.442695040888963387;
const SQRT_HALF = 0.7071067811865476;

/** 2 to the power of −1074 to 1023, by halving and doubling, which is exact. */
const LEAST_POWER = -1074;
const POWERS_OF_TWO = new Float64Array(1023 - LEAST_POWER + 1);
POWERS_OF_TWO[-LEAST_POWER] = 1;
for (let k = 1; k <= 1023; k++)
  POWERS_OF_TWO[k - LEAST_POWER] = POWERS_OF_TWO[k - 1 - LEAST_POWER] * 2;
for (let k = -1; k >= LEAST_POWER; k--)
  POWERS_OF_TWO[k - LEAST_POWER] = POWERS_OF_TWO[k + 1 - LEAST_POWER] / 2;

/** e to the power of what stands in a cell, put in its place: no number leaves the function, so none is allocated. */
export function expInPlace(cells: Float64Array, at: number): void {
  const x = cells[at];
  if (x !== x) return;
  if (x > 709.782712893384) {
    cells[at] = Infinity;
    return;
  }
  if (x < -745.1332191019411) {
    cells[at] = 0;
    return;
  }
  const k = Math.round(x * ONE_OVER_LN2);
  const high = x - k * LN2_HIGH;
  const low = k * LN2_LOW;
  const r = high - low;
  const square = r * r;
  const c =
    r -
    square *
      (1.66666666666666019037e-1 +
        square *
          (-2.77777777770155933842e-3 +
            square *
              (6.61375632143793436117e-5 +
                square * (-1.6533902205465251539e-6 + square * 4.13813679705723846039e-8))));
  const y = 1 - (low - (r * c) / (2 - c) - high);
  if (k === 1024) cells[at] = y * 2 * POWERS_OF_TWO[1023 - LEAST_POWER];
  else if (k >= -1021) cells[at] = y * POWERS_OF_TWO[k - LEAST_POWER];
  // Two steps, so that a result without full precision is rounded once.
  else cells[at] = y * POWERS_OF_TWO[k + 1000 - LEAST_POWER] * POWERS_OF_TWO[-1000 - LEAST_POWER];
}

const cell = new Float64Array(1);

/** e to the power of `x`. */
export function exp(x: number): number {
  cell[0] = x;
  expInPlace(cell, 0);
  return cell[0];
}

const word = new DataView(new ArrayBuffer(8));

/** Natural logarithm; −Infinity for 0, NaN below. */
export function log(x: number): number {
  cell[0] = x;
  logInPlace(cell, 0);
  return cell[0];
}

/** The natural logarithm of what stands in a cell, put in its place. */
function logInPlace(cells: Float64Array, at: number): void {
  const x = cells[at];
  if (!(x > 0) || x === Infinity) {
    cells[at] = x === 0 ? -Infinity : x === Infinity ? x : NaN;
    return;
  }
  let k = 0;
  let m = x;
  if (m < 2.2250738585072014e-308) {
    m *= 18014398509481984;
    k = -54;
  }
  word.setFloat64(0, m);
  const head = word.getUint32(0);
  k += ((head >>> 20) & 0x7ff) - 1022;
  word.setUint32(0, (head & 0xfffff) | 0x3fe00000);
  m = word.getFloat64(0);
  // m lies in [½, 1); it is brought into [√½, √2).
  if (m < SQRT_HALF) {
    m *= 2;
    k--;
  }
  const f = m - 1;
  const s = f / (2 + f);
  const z = s * s;
  const w = z * z;
  const odd =
    z *
    (6.66666666666673513e-1 +
      w * (2.857142874366239149e-1 + w * (1.818357216161805012e-1 + w * 1.479819860511658591e-1)));
  const even =
    w * (3.999999999940941908e-1 + w * (2.222219843214978396e-1 + w * 1.531383769920937332e-1));
  const half = 0.5 * f * f;
  cells[at] =
    k === 0
      ? f - (half - s * (half + odd + even))
      : k * LN2_HIGH - (half - (s * (half + odd + even) + k * LN2_LOW) - f);
}

/** `base` to the power of `exponent`, for bases from 0 up. */
export function power(base: number, exponent: number): number {
  cell[0] = base;
  powerInPlace(cell, 0, exponent);
  return cell[0];
}

/** The same with what stands in a cell, put in its place. */
export function powerInPlace(cells: Float64Array, at: number, exponent: number): void {
  if (exponent === 1) return;
  const base = cells[at];
  if (exponent === 0) cells[at] = 1;
  else if (exponent === 2) cells[at] = base * base;
  else if (exponent === 0.5) cells[at] = Math.sqrt(base);
  else if (base === 0) cells[at] = exponent > 0 ? 0 : Infinity;
  else if (base !== 1) {
    logInPlace(cells, at);
    cells[at] *= exponent;
    expInPlace(cells, at);
  }
}
