/**
 * Sine, cosine and arc tangent whose every bit is the same in every engine.
 *
 * ECMA-262 leaves the last bits of `Math.sin` and its kin to the implementation, so a run that used
 * them could part between Node and a browser. These use only + − × ÷ and square root, which IEEE 754
 * rounds exactly.
 *
 * Source: the argument reduction and the minimax polynomials of fdlibm (`k_sin.c`, `k_cos.c`,
 * `s_atan.c`), simplified for |x| up to 2^20 radians. Error stays below 1e-15 absolute.
 */

export const PI = 3.141592653589793;
const TAU = 6.283185307179586;

const HALF_PI_HIGH = 1.5707963267341256; // the first 33 bits of π/2
const HALF_PI_LOW = 6.077100506506192e-11; // the next 53 bits
const LARGEST_ANGLE = 1048576;

function kernelSine(x: number, tail: number): number {
  const z = x * x;
  const v = z * x;
  const r =
    8.33333333332248946124e-3 +
    z *
      (-1.98412698298579493134e-4 +
        z *
          (2.75573137070700676789e-6 +
            z * (-2.50507602534068634195e-8 + z * 1.58969099521155010221e-10)));
  return x - (z * (0.5 * tail - v * r) - tail - v * -1.66666666666666324348e-1);
}

function kernelCosine(x: number, tail: number): number {
  const z = x * x;
  const r =
    z *
    (4.16666666666666019037e-2 +
      z *
        (-1.38888888888741095749e-3 +
          z *
            (2.48015872894767294178e-5 +
              z *
                (-2.75573143513906633035e-7 +
                  z * (2.0875723212981748279e-9 + z * -1.13596475577881948265e-11)))));
  const half = 0.5 * z;
  const w = 1 - half;
  return w + (1 - w - half + (z * r - x * tail));
}

/** Sine shifted by `quarters` quarter turns; the shared body of {@link sin} and {@link cos}. */
function shiftedSine(x: number, quarters: number): number {
  if (!(x <= LARGEST_ANGLE && x >= -LARGEST_ANGLE)) return 0;
  const n = Math.round(x / (PI / 2));
  const high = x - n * HALF_PI_HIGH;
  const low = n * HALF_PI_LOW;
  const reduced = high - low;
  const tail = high - reduced - low;
  switch ((n + quarters) & 3) {
    case 0:
      return kernelSine(reduced, tail);
    case 1:
      return kernelCosine(reduced, tail);
    case 2:
      return -kernelSine(reduced, tail);
    default:
      return -kernelCosine(reduced, tail);
  }
}

/** Sine of `x` radians. An angle that is not finite, or past ±2^20, gives 0. */
export function sin(x: number): number {
  return shiftedSine(x, 0);
}

/** Cosine of `x` radians. An angle that is not finite, or past ±2^20, gives 0. */
export function cos(x: number): number {
  return shiftedSine(x, 1);
}

const ATAN_HIGH = [
  4.63647609000806093515e-1, 7.85398163397448278999e-1, 9.82793723247329054082e-1,
  1.570796326794896558,
];
const ATAN_LOW = [
  2.26987774529616870924e-17, 3.06161699786838301793e-17, 1.39033110312309984516e-17,
  6.12323399573676603587e-17,
];
const ATAN_ODD = [
  3.33333333333329318027e-1, 1.42857142725034663711e-1, 9.09088713343650656196e-2,
  6.66107313738753120669e-2, 4.97687799461593236017e-2, 1.62858201153657823623e-2,
];
const ATAN_EVEN = [
  -1.99999999998764832476e-1, -1.1111110405462355788e-1, -7.69187620504482999495e-2,
  -5.83357013379057348645e-2, -3.6531572744216915527e-2,
];

function atanOfPositive(x: number): number {
  let y = x;
  let part = -1;
  if (x >= 2.4375) {
    y = -1 / x;
    part = 3;
  } else if (x >= 1.1875) {
    y = (x - 1.5) / (1 + 1.5 * x);
    part = 2;
  } else if (x >= 0.6875) {
    y = (x - 1) / (x + 1);
    part = 1;
  } else if (x >= 0.4375) {
    y = (2 * x - 1) / (2 + x);
    part = 0;
  }
  const z = y * y;
  const w = z * z;
  const odd =
    z *
    (ATAN_ODD[0] +
      w *
        (ATAN_ODD[1] +
          w * (ATAN_ODD[2] + w * (ATAN_ODD[3] + w * (ATAN_ODD[4] + w * ATAN_ODD[5])))));
  const even =
    w *
    (ATAN_EVEN[0] +
      w * (ATAN_EVEN[1] + w * (ATAN_EVEN[2] + w * (ATAN_EVEN[3] + w * ATAN_EVEN[4]))));
  if (part < 0) return y - y * (odd + even);
  return ATAN_HIGH[part] - (y * (odd + even) - ATAN_LOW[part] - y);
}

/** Angle of the vector (`x`, `y`) in radians, −π to π; 0 for the zero vector or a part that is not finite. */
export function atan2(y: number, x: number): number {
  if (!Number.isFinite(x) || !Number.isFinite(y)) return 0;
  if (x === 0) {
    if (y === 0) return 0;
    return y > 0 ? PI / 2 : -PI / 2;
  }
  const angle = atanOfPositive(Math.abs(y / x));
  const folded = x > 0 ? angle : PI - angle;
  return y < 0 ? -folded : folded;
}

/** `angle` (radians) turned into the range −π (included) to π (excluded). */
export function wrapAngle(angle: number): number {
  if (angle >= -PI && angle < PI) return angle;
  return angle - Math.floor((angle + PI) / TAU) * TAU;
}

export function radians(degrees: number): number {
  return (degrees * PI) / 180;
}

export function degrees(angle: number): number {
  return (angle * 180) / PI;
}
