'use client';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { fetchFile } from '@/client/api';
import { useNewerProgram } from '@/client/useOffline';
import { useSendingWhatWaits } from '@/client/useOutbox';
import { FileSource } from '@/ui/fetchFile';

export function Providers({ children }: { children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: { refetchOnWindowFocus: true, networkMode: 'always' },
          mutations: { networkMode: 'always' },
        },
      }),
  );
  return (
    <QueryClientProvider client={client}>
      <Sender />
      <FileSource value={fetchFile}>{children}</FileSource>
    </QueryClientProvider>
  );
}

function Sender() {
  useSendingWhatWaits();
  const takeOver = useNewerProgram();
  if (!takeOver) return null;
  return (
    <p role="status" className="notice fixed right-2 bottom-2 z-50 flex items-center gap-3">
      A newer Surrik is on this device. What you entered stays.
      <button type="button" className="btn btn-sm" onClick={takeOver}>
        Use it now
      </button>
    </p>
  );
}
