'use client';

import dynamic from 'next/dynamic';

/** The window in which a condition is put together: loaded once somebody opens it. */
export const ConditionWindow = dynamic(() => import('./condition-window').then((one) => one.ConditionWindow));
