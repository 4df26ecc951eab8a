import './globals.css';
import '@fontsource-variable/overpass';
import '@fontsource-variable/overpass-mono';
import type { Metadata, Viewport } from 'next';
import localFont from 'next/font/local';
import type { ReactNode } from 'react';
import { KeepSheet } from './keep-sheet';
import { ServiceWorker } from './service-worker';

const words = localFont({
  src: '../node_modules/@fontsource-variable/overpass/files/overpass-latin-wght-normal.woff2',
  weight: '100 900',
  display: 'swap',
  variable: '--font-words',
});
const figures = localFont({
  src: '../node_modules/@fontsource-variable/overpass-mono/files/overpass-mono-latin-wght-normal.woff2',
  weight: '300 700',
  display: 'swap',
  variable: '--font-figures',
});

export const metadata: Metadata = {
  title: { default: 'Mile Ledger', template: '%s · Mile Ledger' },
  description: 'The evidence book of somebody who charges an electric car in public',
  manifest: '/manifest.webmanifest',
  icons: { icon: '/icon.svg', apple: '/icon-192.png' },
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1, viewportFit: 'cover', themeColor: '#23292c' };

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" data-sheet="day" className={`${words.variable} ${figures.variable}`} suppressHydrationWarning>
      <head>
        {/* Blocking on purpose: the sheet is chosen before the first paint. */}
        <script src="/sheet.js" />
      </head>
      <body>
        {children}
        <KeepSheet />
        <ServiceWorker />
      </body>
    </html>
  );
}
