import type { Answer } from '@/core/access';
import type { Expectation } from '@/core/expectations';
import type { Finding } from '@/core/findings';

/** What the server tells of an application's newest revision that was looked through. */
export interface Proof {
  readonly revision: number;
  readonly findings: readonly ShownFinding[];
  readonly broken: readonly Broken[];
  readonly expected: number;
}

interface Since {
  readonly revision: number;
  readonly author: string;
  readonly at: string;
}

export interface ShownFinding extends Omit<Finding, 'whom'> {
  readonly key: string;
  readonly title: string;
  readonly since?: Since | undefined;
  readonly whom: {
    readonly kinds: readonly string[];
    readonly people: number;
    readonly some: readonly { readonly key: string; readonly name: string }[];
  };
  readonly aside?: { readonly reason: string; readonly by: string; readonly at: string } | undefined;
}

interface Broken {
  readonly id: string;
  readonly is?: Answer | undefined;
  readonly since?: Since | undefined;
}

export interface ListedExpectation extends Expectation {
  readonly id: string;
  /** Undefined where the viewer is gone. */
  readonly viewerName?: string | undefined;
  readonly by: string | null;
  readonly at: string;
}

export interface Expected {
  readonly expectations: readonly ListedExpectation[];
}
