import type { Params, RecordsRight, Route } from '@/contract/route';
import { answering, type HandlerInput, type HandlerResult } from '../http/answering';
import { type DataRequest, dataRequest } from './request';

/** Handles a route about the records of one kind of data, for builders who may read or change them. */
export const aboutRecords = <Path extends string, Sends, Reads, Answer>(
  contract: Route<Path, RecordsRight, Sends, Reads, Answer>,
  work: (of: DataRequest, asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
) =>
  answering(
    contract,
    (request, params) => {
      const { app, entity } = params as Params<'/:app/:entity'>;
      return dataRequest(request, app, entity, contract.right.records);
    },
    work,
  );
