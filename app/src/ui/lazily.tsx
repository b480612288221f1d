import { Suspense, lazy } from 'react';
import type { ComponentType } from 'react';
import { Screen, Waiting } from './Screen';

/** A screen that is fetched when it is first opened: the first load stays small. */
export function lazily(load: () => Promise<ComponentType>): ComponentType {
  const Inner = lazy(async () => ({ default: await load() }));
  return function Lazily() {
    return (
      <Suspense
        fallback={
          <Screen title="" day={false}>
            <Waiting />
          </Screen>
        }
      >
        <Inner />
      </Suspense>
    );
  };
}
