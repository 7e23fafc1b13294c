import type { MetadataRoute } from 'next';

/** What a device needs to put Surrik among its programs. */
export default function manifest(): MetadataRoute.Manifest {
  return {
    name: 'Surrik',
    short_name: 'Surrik',
    description: 'Workbench for the charging links between vehicle batteries',
    start_url: '/',
    display: 'standalone',
    background_color: '#F4EDDC',
    theme_color: '#F4EDDC',
    icons: [
      { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
      { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  };
}
