'use client';
/** What is typed on the keypad, apart from the rest of the job page: a digit must not redraw strip and sheet. */
import { createContext, useContext, useState, type Dispatch, type ReactNode, type SetStateAction } from 'react';

export interface Typed {
  text: string;
  millis: boolean;
}

const Value = createContext<Typed>({ text: '', millis: false });
const Change = createContext<Dispatch<SetStateAction<Typed>>>(() => undefined);

export function TypedProvider({ children }: { children: ReactNode }) {
  const [typed, change] = useState<Typed>({ text: '', millis: false });
  return (
    <Change value={change}>
      <Value value={typed}>{children}</Value>
    </Change>
  );
}

export const useTyped = (): Typed => useContext(Value);
export const useChangeTyped = () => useContext(Change);
