import type { ApplicationRight, Params, Route } from '@/contract/route';
import { answering, type HandlerInput, type HandlerResult } from '../http/answering';
import { RecordsApi } from '../records/api';
import { needRight } from '../studio/answering';
import { lookOf, type Looking } from './look';

/** How a request looks, for a builder with the right to ask it: as whom, at what and when is in its query. */
async function lookOfRequest(
  right: ApplicationRight,
  request: Request,
  { app }: Params<'/:app'>,
): Promise<Looking> {
  const { searchParams, pathname } = new URL(request.url);
  return lookOf(await needRight(app, right), searchParams, pathname);
}

/** Handles a route for who looks as somebody. */
export const inLook = <Path extends string, Sends, Reads, Answer>(
  contract: Route<Path, ApplicationRight, Sends, Reads, Answer>,
  work: (look: Looking, asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
) =>
  answering(
    contract,
    (request, params) => lookOfRequest(contract.right, request, params as Params<'/:app'>),
    work,
  );

/** The same for the records, as that viewer has them. Without a pane, what is written is decided and then forgotten. */
export const inLookRecords = <Path extends string, Sends, Reads, Answer>(
  contract: Route<Path, ApplicationRight, Sends, Reads, Answer>,
  work: (api: RecordsApi, asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
) =>
  answering(
    contract,
    async (request, params) => {
      const { scope, writer } = await lookOfRequest(contract.right, request, params as Params<'/:app'>);
      return new RecordsApi(scope, writer);
    },
    work,
  );
