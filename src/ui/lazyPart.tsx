'use client';
/**
 * Parts of a page whose script comes when they are first shown. A script that does not arrive, as where the server starts
 * anew or the signal is gone, is asked for again; where it still does not come, that part says so and can be asked for by
 * hand. The page around it stays, with what is typed on it.
 */
import { use, useReducer, type ComponentType, type ReactNode } from 'react';
import { Sheet } from './Dialog';
import { Trouble } from './Trouble';

/** Between one try and the next, in ms: a server that starts anew is there in some seconds. From memory. */
const AGAIN_MS = [500, 1500, 4000];

/** What `load` gives, asked for again where it fails; undefined where it fails every time. */
async function arrives<T>(load: () => Promise<T>, waits: readonly number[]): Promise<T | undefined> {
  for (let k = 0; ; k++) {
    try {
      return await load();
    } catch {
      const wait = waits[k];
      if (wait === undefined) return undefined;
      await new Promise((r) => setTimeout(r, wait));
    }
  }
}

function NotArrived({ again, onClose }: { again(): void; onClose: (() => void) | undefined }) {
  const said = (
    <div className="grid content-start justify-items-start gap-2 p-2">
      <Trouble>This part of Surrik has not arrived: the server does not answer. What you entered is kept.</Trouble>
      <button type="button" className="btn" onClick={again}>
        Ask for it again
      </button>
    </div>
  );
  return onClose ? (
    <Sheet title="Not here yet" onClose={onClose}>
      {said}
    </Sheet>
  ) : (
    said
  );
}

/** Of a component that takes none, none. */
type PropsOf<F extends (props: never) => ReactNode> = Parameters<F> extends [infer P extends object] ? P : object;

/**
 * A component that comes by itself; it wants a Suspense around it. One that has `onClose` is a dialog.
 * @param load imports its module
 * @param name what it is called there
 * @param waits ms between tries
 */
export function lazyPart<Name extends string, Module extends Record<Name, (props: never) => ReactNode>>(
  load: () => Promise<Module>,
  name: Name,
  waits: readonly number[] = AGAIN_MS,
): ComponentType<PropsOf<Module[Name]>> {
  type Props = PropsOf<Module[Name]>;
  let asked: Promise<ComponentType<Props> | undefined> | undefined;
  return function LazyPart(props: Props) {
    const [, show] = useReducer((n: number) => n + 1, 0);
    asked ??= arrives(load, waits).then((m) => m?.[name] as unknown as ComponentType<Props> | undefined);
    const Part = use(asked);
    if (Part) return <Part {...props} />;
    return (
      <NotArrived
        again={() => {
          asked = undefined;
          show();
        }}
        onClose={(props as { onClose?: () => void }).onClose}
      />
    );
  };
}
