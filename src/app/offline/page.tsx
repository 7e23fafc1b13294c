import { OfflineShell } from './OfflineShell';

export const metadata = { title: 'Without a server' };

/** The same for everyone and for every address: kept on each device with the code, and drawn from what it holds. */
export default function OfflinePage() {
  return <OfflineShell />;
}
