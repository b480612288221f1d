/** One line about what is being done, with the time it took when it is over. */
export async function step(what, work) {
  const from = Date.now();
  process.stdout.write(`${what} … `);
  try {
    const result = await work();
    process.stdout.write(`${((Date.now() - from) / 1000).toFixed(1)} s\n`);
    return result;
  } catch (error) {
    process.stdout.write('failed\n');
    throw error;
  }
}

/** A failure whose message already says what to do: shown without a stack. */
export class Told extends Error {}

export function failPlainly(error) {
  console.error(error instanceof Told ? error.message : error);
  process.exit(1);
}
