import { cookies } from 'next/headers';
import type { Params, Route } from '@/contract/route';
import { answering, type HandlerInput, type HandlerResult } from '../http/answering';
import { notThere } from '../http/problem';
import { RecordsApi } from '../records/api';
import { apiVisit } from './api';
import { scopeOf, visit, writerOf } from './visit';
import type { Visit } from './who-visits';

const appOf = (params: unknown): string => (params as Params<'/:app'>).app;

/** Handles a route of a released application, for whoever visits it: what they get is decided by its gates. */
export const inLive = <Path extends string, Sends, Reads, Answer>(
  contract: Route<Path, 'visitor', Sends, Reads, Answer>,
  work: (visit: Visit, asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
) => answering(contract, (request, params) => apiVisit(appOf(params), request), work);

/** The same for what says itself who it is from now on: signing in and out, and standing in. It is no look at anything. */
export const atTheDoor = <Path extends string, Sends, Reads, Answer>(
  contract: Route<Path, 'visitor', Sends, Reads, Answer>,
  work: (visit: Visit, asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
) =>
  answering(
    contract,
    async (_, params) => {
      const now = await visit(appOf(params), await cookies());
      if (!now) throw notThere();
      return now;
    },
    work,
  );

/** The same for its records. */
export const inLiveRecords = <Path extends string, Sends, Reads, Answer>(
  contract: Route<Path, 'visitor', Sends, Reads, Answer>,
  work: (api: RecordsApi, asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
) =>
  answering(
    contract,
    async (request, params) => {
      const now = await apiVisit(appOf(params), request);
      return new RecordsApi(scopeOf(now), writerOf(now));
    },
    work,
  );
