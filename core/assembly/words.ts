/** What lies in memory: words (32 bits) and numbers (64) in rows, and lists: a word that says how many, then as many words. */

export function at(row: usize, index: i32): i32 {
  return load<i32>(row + ((<usize>index) << 2));
}

export function put(row: usize, index: i32, value: i32): void {
  store<i32>(row + ((<usize>index) << 2), value);
}

export function numberAt(row: usize, index: i32): f64 {
  return load<f64>(row + ((<usize>index) << 3));
}

export function putNumber(row: usize, index: i32, value: f64): void {
  store<f64>(row + ((<usize>index) << 3), value);
}

/** How many a list has. */
export function sizeOf(list: usize): i32 {
  return load<i32>(list);
}

/** One of a list, from 0 on. */
export function nth(list: usize, index: i32): i32 {
  return load<i32>(list + ((<usize>index) << 2) + 4);
}

/** The list at a place of a row of lists. */
export function listAt(row: usize, index: i32): usize {
  return <usize>at(row, index);
}
