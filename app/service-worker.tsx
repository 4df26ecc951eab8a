'use client';
import { useEffect } from 'react';
import { registerServiceWorker } from '@/client/register-service-worker';

export function ServiceWorker() {
  useEffect(() => registerServiceWorker(), []);
  return null;
}
