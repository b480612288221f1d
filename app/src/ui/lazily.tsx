import { Suspense, lazy } from 'react';
import type { ComponentType } from 'react';
import { Action } from './Action';
import { Screen, Waiting } from './Screen';
import { Body } from './Type';

/** What stands where a page would be that could not be fetched: the rest of the app goes on. */
function NotHere() {
  return (
    <Screen title="Not on this phone yet" day={false}>
      <Body>This page is fetched when it is first opened, and the server cannot be reached. The five places below go on without it. Try again when the connection is back.</Body>
      <Action
        kind="main"
        label="Try again"
        onPress={() => {
          window.location.reload();
        }}
      />
    </Screen>
  );
}

/** A part of a page that is fetched when it is first wanted; until then, and without a connection, it is not there. */
export function lazyPart<Props extends object>(load: () => Promise<ComponentType<Props>>): ComponentType<Props> {
  const Inner = lazy(async () => ({ default: await load().catch((): ComponentType<Props> => () => null) }));
  return function LazyPart(props: Props) {
    return (
      <Suspense fallback={null}>
        <Inner {...props} />
      </Suspense>
    );
  };
}

/** A screen that is fetched when it is first opened: the first load stays small. */
export function lazily(load: () => Promise<ComponentType>): ComponentType {
  const Inner = lazy(async () => ({ default: await load().catch((): ComponentType => NotHere) }));
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
