import { liftPersonWaits } from '@/contract/studio/people';
import { liftWaitsOf } from '@/server/people/write';
import { inApplication } from '@/server/studio/answering';

export const DELETE = inApplication(liftPersonWaits, ({ applicationId, builder }, { params }) =>
  liftWaitsOf(applicationId, { builderId: builder.id }, params.id),
);
