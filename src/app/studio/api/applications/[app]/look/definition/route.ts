import { lookDefinition } from '@/contract/studio/look';
import { definitionOf } from '@/server/look/look';
import { inApplication } from '@/server/studio/answering';

export const GET = inApplication(lookDefinition, ({ applicationId }, { query }) =>
  definitionOf(applicationId, query.get('on') ?? 'draft'),
);
