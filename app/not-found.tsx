import type { Metadata } from 'next';

export const metadata: Metadata = { title: 'Not here' };

export default function NotFound() {
  return (
    <main className="mx-auto max-w-md p-6">
      <h1 className="text-2xl">Not here</h1>
      <p className="mt-3">There is no such page in your ledger. It may belong to another household, or the address is mistyped.</p>
      <p className="mt-5">
        <a className="plate plate-next" href="/ledger">
          Open the ledger
        </a>
      </p>
    </main>
  );
}
