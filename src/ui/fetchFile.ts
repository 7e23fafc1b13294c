/** Where files come from that the server makes; screens do not know the server. */
import { createContext, use } from 'react';

export type FetchFile = (path: string, signal: AbortSignal) => Promise<{ name: string; blob: Blob }>;

export const FileSource = createContext<FetchFile>(() =>
  Promise.reject(new Error('There is nobody to make files here.')),
);
export const useFetchFile = (): FetchFile => use(FileSource);
