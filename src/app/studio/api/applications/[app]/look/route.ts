import { lookPage as contract } from '@/contract/studio/look';
import { inLook } from '@/server/look/answering';
import { lookPage } from '@/server/look/look-page';

export const GET = inLook(contract, (look, { query }) => lookPage(look, query.get('address') ?? '', query));
