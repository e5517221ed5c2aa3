'use client';

import { type Condition, type Scope } from '@/core/condition';

export interface Props {
  readonly scope: Scope;
  readonly condition: Condition;
  readonly onChange: (condition: Condition) => void;
  /** Absent at the top. */
  readonly onRemove?: () => void;
}
