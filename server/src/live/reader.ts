/**
 * Reads one at a time: asked while it reads, it reads once more, whatever the reading under way has found, because that may have begun before there was anything.
 * `read` answers whether there is more.
 */
export function oneReader(read: () => Promise<boolean>): () => Promise<void> {
  let isReading = false;
  let isAsked = false;
  return async () => {
    isAsked = true;
    if (isReading) return;
    isReading = true;
    try {
      while (isAsked) {
        isAsked = false;
        // Asked meanwhile, it stays asked.
        if (await read()) isAsked = true;
      }
    } finally {
      isReading = false;
    }
  };
}
