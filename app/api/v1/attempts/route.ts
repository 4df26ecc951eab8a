import { listing } from '@/server/api/lists';

export const dynamic = 'force-dynamic';

export const GET = listing('attempts');
