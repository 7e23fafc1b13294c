'use client';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { useState, type ReactNode } from 'react';
import { useSendingWhatWaits } from '@/client/useOutbox';

export function Providers({ children }: { children: ReactNode }) {
  const [client] = useState(() => new QueryClient({ defaultOptions: { queries: { refetchOnWindowFocus: true } } }));
  return (
    <QueryClientProvider client={client}>
      <Sender />
      {children}
    </QueryClientProvider>
  );
}

function Sender() {
  useSendingWhatWaits();
  return null;
}
