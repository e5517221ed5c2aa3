import { accessOf, compile, landingOf, readAddress } from '@/core';
import {
  addressOf,
  type Answer,
  type KnownRecord,
  type LookOutcome,
  type LookPage,
  frameAround,
} from '@/core/access';
import { type AppElement, type Id, menusOf } from '@/core/model';
import { pageAt } from '../live/screen-page';
import { setByOpening } from '../live/session-values';
import { knownRecord, storedRecord } from '../records/read';
import { changesIn } from './panes';
import type { Looking } from './look';

/** The page at an address; at the empty one, where the viewer lands after signing in. */
export async function lookPage(asked: Looking, address: string, query: URLSearchParams): Promise<LookPage> {
  let look = asked;
  let { at, sentFrom, outcome } = await outcomeAt(look, address, query);
  const sets = outcome.is === 'open' ? setsOf(look, outcome.page.screen.id) : undefined;
  if (sets) {
    // Decided anew, as in a release.
    look = withSession(look, sets);
    ({ at, sentFrom, outcome } = await outcomeAt(look, address, query));
  }
  const { scope } = look;
  const { access } = scope;
  const { tree } = access.compiled;
  return {
    ...(look.revision !== undefined && { revision: look.revision }),
    viewerName: look.viewerName,
    address: at,
    ...(sentFrom !== undefined && { sentFrom }),
    outcome,
    frame: frameAround(access, outcome.is === 'open' ? readAddress(tree, at)?.screen : undefined),
    levels: await levelsAt(look, at),
    screens: Object.fromEntries(
      tree.screens().map(({ id }) => [id, access.answer(access.element(id))] as const),
    ),
    ...(sets && { sets }),
    changes: await changesIn(scope.pane),
  };
}

/** What opening the screen sets that is not so already; undefined where it sets nothing. */
function setsOf({ definition, viewer, circumstances, scope }: Looking, screen: Id): LookPage['sets'] {
  if (viewer.kind === 'signed-out') return undefined;
  const { node } = scope.access.compiled.tree.need(screen, 'screen');
  const now = circumstances.session ?? {};
  const sets = setByOpening(definition, node).filter(({ id, to }) => (now[id] ?? null) !== to);
  return sets.length > 0 ? Object.fromEntries(sets.map(({ id, to }) => [id, to])) : undefined;
}

/** The same look, with these values set in its session. */
function withSession(look: Looking, sets: NonNullable<LookPage['sets']>): Looking {
  const circumstances = { ...look.circumstances, session: { ...look.circumstances.session, ...sets } };
  const access = accessOf(compile(look.definition), look.viewer, circumstances);
  return { ...look, circumstances, scope: { ...look.scope, access } };
}

async function outcomeAt(
  { scope, viewer, startScreen }: Looking,
  address: string,
  query: URLSearchParams,
): Promise<{ at: string; sentFrom?: string; outcome: LookOutcome }> {
  const out = viewer.kind === 'signed-out';
  if (address === '') {
    const landing = landingOf(scope.access, startScreen);
    if (!landing) return { at: '', outcome: { is: out ? 'sign-in' : 'nothing-open' } };
    return { at: addressOf(landing), outcome: await pageAt(scope, addressOf(landing), query) };
  }
  const outcome = await pageAt(scope, address, query);
  if (out && outcome.is !== 'open') return { at: address, outcome: { is: 'sign-in' } };
  if (outcome.is !== 'sent') return { at: address, outcome };
  return {
    at: outcome.address,
    sentFrom: address,
    outcome: await pageAt(scope, outcome.address, query),
  };
}

/** The levels of the menus and of what is on the screen at this address. */
async function levelsAt(look: Looking, address: string): Promise<Record<Id, Answer>> {
  const { access } = look.scope;
  const { tree, definition } = access.compiled;
  const levels: Record<Id, Answer> = {};
  for (const { id } of menusOf(definition))
    for (const element of tree.within(access.element(id))) levels[element.id] = access.answer(element);
  const destination = readAddress(tree, address);
  if (!destination) return levels;
  const record = await recordAt(look, address);
  const lacking = destination.record !== undefined && !record;
  for (const element of tree.within(access.element(destination.screen.id)))
    levels[element.id] = lacking ? { least: 0, most: 0 } : levelOf(look, element, record);
  return levels;
}

/** On the record that is shown, where one is; of what stands in a list, over all of its rows. */
function levelOf(
  { scope: { access } }: Looking,
  element: AppElement,
  record: KnownRecord | undefined,
): Answer {
  if (element.kind === 'list' || element.list) {
    const { most } = access.answerOn(element, undefined, record);
    const { least } = access.answer(element);
    return { least: Math.min(least, most) as Answer['least'], most };
  }
  return record ? access.answerOn(element, record) : access.answer(element);
}

/** The record at an address, whoever may see it: what is decided on it is told to builders, its values are not. */
export async function recordAt(look: Looking, address: string): Promise<KnownRecord | undefined> {
  const { tree } = look.scope.access.compiled;
  const destination = readAddress(tree, address);
  const entity = destination?.screen.binds && tree.need(destination.screen.binds.entity, 'rows').node;
  if (!entity || destination.record === undefined) return undefined;
  const stored = await storedRecord(look.scope, entity, destination.record);
  return stored && knownRecord(look.scope, entity, stored);
}
