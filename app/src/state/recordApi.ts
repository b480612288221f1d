import { CallFailed } from '@broth/contract';
import { recordClient } from '@broth/contract/record';
import { useEffect, useState } from 'react';

/** The record's part of the API, for the screens that need it. */
export const recordApi = recordClient((url, init) => fetch(url, { ...init, signal: AbortSignal.timeout(15_000) }));

/** Why a call came to nothing, in a sentence. */
export function whyNot(error: unknown): string {
  return error instanceof CallFailed ? error.message : `Something went wrong on this device: ${String(error)}`;
}

/** Asks once, and again when `again` changes; what went wrong stands beside what was known. */
export function useAsked<Answer>(ask: () => Promise<Answer>, again: string): { readonly answer: Answer | null; readonly trouble: string | null } {
  const [state, setState] = useState<{ readonly answer: Answer | null; readonly trouble: string | null }>({ answer: null, trouble: null });
  useEffect(() => {
    let gone = false;
    ask()
      .then((answer) => {
        if (!gone) setState({ answer, trouble: null });
      })
      .catch((error: unknown) => {
        if (!gone) setState((before) => ({ answer: before.answer, trouble: whyNot(error) }));
      });
    return () => {
      gone = true;
    };
    // `ask` is made anew with every picture; `again` says when its answer may differ.
  }, [again]);
  return state;
}
