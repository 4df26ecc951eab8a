// Where the Stall's own bundle begins, in the browser alone.
import { createRoot } from 'react-dom/client';
import { registerServiceWorker } from '@/client/register-service-worker';
import { Caught } from './caught';
import { StallScreen } from './stall-screen';

registerServiceWorker();
createRoot(document.querySelector('[data-stall]') as Element).render(
  <Caught>
    <StallScreen />
  </Caught>,
);
