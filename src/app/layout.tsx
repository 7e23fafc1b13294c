import type { Metadata, Viewport } from 'next';
import { cookies } from 'next/headers';
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

/** The theme is a cookie, so that the first paint is already right. */
export default async function RootLayout({ children }: { children: ReactNode }) {
  await connection();
  const theme = (await cookies()).get('surrik-theme')?.value === 'carbon' ? 'carbon' : 'ticket';
  return (
    <html
      lang="en"
      data-theme={theme}
      {...(process.env['SURRIK_CHECK_ANSWERS'] === '1' ? { 'data-check-answers': 'yes' } : {})}
    >
      <body>
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
