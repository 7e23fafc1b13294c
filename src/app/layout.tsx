import type { Metadata, Viewport } from 'next';
import { cookies, headers } from 'next/headers';
import { connection } from 'next/server';
import type { ReactNode } from 'react';
import { Providers } from './Providers';
import './globals.css';
import './forms.css';
import './intake.css';

export const metadata: Metadata = {
  title: { default: 'Surrik', template: '%s · Surrik' },
  description: 'Workbench for the charging links between vehicle batteries',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1, themeColor: '#F4EDDC' };

/** Nobody has chosen yet: dark where the system is. Runs before anything is painted. */
const FOLLOW_SYSTEM =
  "if (matchMedia('(prefers-color-scheme: dark)').matches) document.documentElement.dataset.theme = 'carbon';";

/** The theme is a cookie, so that the first paint is already right. */
export default async function RootLayout({ children }: { children: ReactNode }) {
  await connection();
  const chosen = (await cookies()).get('surrik-theme')?.value;
  const theme = chosen === 'carbon' ? 'carbon' : 'ticket';
  const nonce = (await headers()).get('x-nonce') ?? '';
  return (
    <html
      lang="en"
      data-theme={theme}
      // Before the first paint a script may have put the system's preference in its place.
      suppressHydrationWarning
      {...(process.env['SURRIK_CHECK_ANSWERS'] === '1' ? { 'data-check-answers': 'yes' } : {})}
    >
      <head>
        {chosen === undefined && (
          <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: FOLLOW_SYSTEM }} />
        )}
      </head>
      <body className="print:text-black">
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
