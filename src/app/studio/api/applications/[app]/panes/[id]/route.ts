import { keepPane, throwPaneAway } from '@/contract/studio/look';
import { isUuid } from '@/server/database/uuid';
import { keepChanges, throwAway } from '@/server/look/panes';
import { inApplication } from '@/server/studio/answering';

export const POST = inApplication(keepPane, async (workplace, { params: { id } }) => ({
  kept: isUuid(id) ? await keepChanges(workplace, id) : 0,
}));

export const DELETE = inApplication(throwPaneAway, async (workplace, { params: { id } }) => {
  if (isUuid(id)) await throwAway(workplace, id);
});
