'use client';
export { PageError as default } from '@/ui/road/page-error';
