/** The places of the application that work, in their order. `shell`: a static page entered whole. */
export const PLACES = [
  { name: 'Stall', href: '/stall', key: '1', shell: true },
  { name: 'Ledger', href: '/ledger', key: '2', shell: false },
  { name: 'Compare', href: '/compare', key: '3', shell: false },
  { name: 'Places', href: '/places', key: '4', shell: false },
  { name: 'Plan', href: '/plan', key: '5', shell: false },
] as const;
