'use client';

export { NotThere as default } from '@/ui/live/refusals';
