'use client';

import type { Condition } from '@/core/condition';

export const START: Condition = { not: { empty: { user: 'email' } } };
