import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Stall' };
export const dynamic = 'force-static';
export default function Stall() { return <main>Stall</main>; }
