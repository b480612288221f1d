/** Coefficients of Wichura, Algorithm AS 241 (PPND7), Applied Statistics 37 (1988): accurate to seven figures. From memory, checked against the standard table. */
const CENTRAL = { a: [3.3871327179, 50.434271938, 159.29113202, 59.10937472], b: [17.895169469, 78.757757664, 67.1875636] };
const MIDDLE = { a: [1.4234372777, 2.75681539, 1.3067284816, 0.17023821103], b: [0.7370016425, 0.12021132975] };
const TAIL = { a: [6.657905115, 3.081226386, 0.42868294337, 0.017337203997], b: [0.24197894225, 0.012258202635] };

function ratio({ a, b }: { readonly a: readonly number[]; readonly b: readonly number[] }, at: number): number {
  const value = (terms: readonly number[], first: number): number => terms.reduce((sum, term, index) => sum + term * at ** (index + first), 0);
  return value(a, 0) / (1 + value(b, 1));
}

/** Standard normal quantile: `zOf(0.95)` is 1.6449. `probability` strictly between 0 and 1; throws RangeError otherwise. */
export function zOf(probability: number): number {
  if (!(probability > 0 && probability < 1)) throw new RangeError(`Invariant: a probability lies between 0 and 1, not at ${String(probability)}`);
  const q = probability - 0.5;
  if (Math.abs(q) <= 0.425) return q * ratio(CENTRAL, 0.180625 - q * q);
  const r = Math.sqrt(-Math.log(q < 0 ? probability : 1 - probability));
  const z = r <= 5 ? ratio(MIDDLE, r - 1.6) : ratio(TAIL, r - 5);
  return q < 0 ? -z : z;
}
