import type { Metadata } from 'next';
import { StallScreen } from './stall-screen';

export const metadata: Metadata = { title: 'Stall' };
// Written once at build time: opens from the service worker with no network at all.
export const dynamic = 'force-static';

export default function StallPage() {
  return <StallScreen />;
}
