import { isUuid } from '@/server/database/uuid';
import { handle, json, nothing } from '@/server/http/handle';
import { keepChanges, throwAway } from '@/server/look/panes';
import { needWorkplace } from '@/server/studio/builder';

type Params = { params: Promise<{ app: string; id: string }> };

/** Keeps what was changed in a pane, for everybody. */
export const POST = handle<Params>(async (_, { params }) => {
  const { app, id } = await params;
  const workplace = await needWorkplace(app, 'change');
  return json({ kept: isUuid(id) ? await keepChanges(workplace, id) : 0 });
});

/** Throws a pane's changes away. */
export const DELETE = handle<Params>(async (_, { params }) => {
  const { app, id } = await params;
  const workplace = await needWorkplace(app, 'read');
  if (isUuid(id)) await throwAway(workplace, id);
  return nothing();
});
