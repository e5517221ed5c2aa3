import { readAddress } from '@/core/access/address';
import { landingOf } from '@/core/access/landing';
import type { Answer } from '@/core/access/level';
import type { LookOutcome, LookPage } from '@/core/access/look';
import { addressOf, resolveMenu, type KnownRecord } from '@/core/access/resolve';
import type { Id } from '@/core/model/id';
import type { Element } from '@/core/model/tree';
import { pageAt } from '../live/page';
import { knownRecord, storedRecord } from '../records/read';
import { changesIn } from './panes';
import type { Looking } from './look';

/** The page at an address; at the empty one, where the viewer lands after signing in. */
export async function lookPage(look: Looking, address: string, query: URLSearchParams): Promise<LookPage> {
  const { scope } = look;
  const { access } = scope;
  const { at, sentFrom, outcome } = await outcomeAt(look, address, query);
  const { tree } = access.compiled;
  return {
    ...(look.revision !== undefined && { revision: look.revision }),
    viewerName: look.viewerName,
    address: at,
    ...(sentFrom !== undefined && { sentFrom }),
    outcome,
    menu: resolveMenu(access),
    levels: await levelsAt(look, at),
    screens: Object.fromEntries(
      tree.screens().map(({ id }) => [id, access.answer(access.element(id))] as const),
    ),
    changes: await changesIn(scope.pane),
  };
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

/** The levels of the menu and of what is on the screen at this address. */
async function levelsAt(look: Looking, address: string): Promise<Record<Id, Answer>> {
  const { access } = look.scope;
  const { tree, definition } = access.compiled;
  const levels: Record<Id, Answer> = {};
  for (const element of tree.within(access.element(definition.menu.id)))
    levels[element.id] = access.answer(element);
  const destination = readAddress(tree, address);
  if (!destination) return levels;
  const record = await recordAt(look, address);
  const lacking = destination.record !== undefined && !record;
  for (const element of tree.within(access.element(destination.screen.id)))
    levels[element.id] = lacking ? { least: 0, most: 0 } : levelOf(look, element, record);
  return levels;
}

function levelOf({ scope: { access } }: Looking, element: Element, record: KnownRecord | undefined): Answer {
  if (element.kind === 'list' || element.list) {
    const most = access.level(element, undefined, record);
    const { least } = access.answer(element);
    return { least: Math.min(least, most) as Answer['least'], most };
  }
  if (!record) return access.answer(element);
  const level = access.level(element, record);
  return { least: level, most: level };
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
