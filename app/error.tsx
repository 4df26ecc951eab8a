'use client';
// For what fails before the road bar stands: who asks could not be told.
export { PageError as default } from '@/ui/road/page-error';
