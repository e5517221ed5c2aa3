import type { ApplicationRight, Params, Route } from '@/contract/route';
import { answering, type HandlerInput, type HandlerResult } from '../http/answering';
import {
  type Builder,
  needBuilder,
  needOwner,
  needPeopleRight,
  needReleaseRight,
  needWorkplace,
  type Workplace,
} from './builder';

/** Handles a route of an application of the studio, for builders with the right that its contract asks for. */
export const inApplication = <Path extends string, Sends, Reads, Answer>(
  contract: Route<Path, ApplicationRight, Sends, Reads, Answer>,
  work: (here: Workplace, asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
) => answering(contract, (_, params) => needRight((params as Params<'/:app'>).app, contract.right), work);

/** Handles a route of the studio for whoever is a builder. */
export const asBuilder = <Path extends string, Sends, Reads, Answer>(
  contract: Route<Path, 'builder', Sends, Reads, Answer>,
  work: (builder: Builder, asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
) => answering(contract, needBuilder, work);

/** Handles a route of the studio that anybody may ask: it says itself what they get. */
export const asAnybody = <Path extends string, Sends, Reads, Answer>(
  contract: Route<Path, 'anybody', Sends, Reads, Answer>,
  work: (asked: HandlerInput<Path, Reads>) => HandlerResult<Answer>,
) =>
  answering(
    contract,
    () => Promise.resolve(undefined),
    (_, asked) => work(asked),
  );

/** The workplace of a builder who has this right in it, or a refusal. */
export function needRight(app: string, right: ApplicationRight): Promise<Workplace> {
  if (typeof right === 'object') return needOwner(app, right.owner);
  switch (right) {
    case 'read':
    case 'change':
      return needWorkplace(app, right);
    case 'people':
      return needPeopleRight(app);
    case 'release':
      return needReleaseRight(app);
  }
}
