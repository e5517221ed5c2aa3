import { keepPins as contract } from '@/contract/studio/builders';
import { inApplication } from '@/server/studio/answering';
import { keepPins } from '@/server/studio/builders';

export const PUT = inApplication(contract, (here, { body }) => keepPins(here, body.people as string[]));
