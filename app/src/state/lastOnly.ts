/** Remembers the answer to the last question: asked the same again, it is given without working it out. */
export function lastOnly<Args extends readonly unknown[], Answer>(work: (...args: Args) => Answer): (...args: Args) => Answer {
  let last: { readonly args: Args; readonly answer: Answer } | null = null;
  return (...args) => {
    if (last === null || args.some((arg, index) => arg !== last?.args[index])) last = { args, answer: work(...args) };
    return last.answer;
  };
}
