'use client';
import { useEffect, useState } from 'react';
import { askWho, type PhoneWho, readWho } from '@/client/store/who';

/** Who uses this phone. `null`: nobody, `asking`: not known yet. */
export function useWho() {
  const [who, setWho] = useState<PhoneWho | null | 'asking'>('asking');
  const [signedOut, setSignedOut] = useState(false);

  // Who: at once from the phone, then as the server says.
  useEffect(() => {
    const here = readWho();
    if (here) setWho(here);
    void askWho().then((answer) => {
      if (answer === 'signed_out') {
        setSignedOut(true);
        if (!here) setWho(null);
      } else if (answer === 'unreachable') {
        if (!here) setWho(null);
      }
      // The same is left as it is: another would open the store anew.
      else setWho((before) => (JSON.stringify(before) === JSON.stringify(answer) ? before : answer));
    });
  }, []);
  return { who, signedOut, setSignedOut };
}
