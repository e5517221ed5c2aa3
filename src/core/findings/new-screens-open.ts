import type { Check } from './finding';

/**
 * Every new screen is open to everyone, also to people who are signed out, until somebody thinks of closing it.
 *
 * Has it: the setting "new screens: everyone".
 * Has it not: "new screens: nobody".
 */
export const newScreensOpen: Check = {
  kind: 'new-screens-open',
  rank: 'lets-in',
  title: 'New screens are open to everyone',
  *find({ definition }) {
    if (definition.newScreens !== 'everyone') return;
    yield {
      reason:
        'A new screen is open to everyone, also to people who are signed out, until its gate is changed.',
      places: [definition.id],
      whom: [],
      mends: [
        {
          says: 'Open new screens to nobody.',
          does: 'nothing',
          edit: { do: 'changeSettings', from: { newScreens: 'everyone' }, to: { newScreens: 'nobody' } },
        },
      ],
    };
  },
};
