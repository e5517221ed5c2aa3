import type { MouseEvent } from 'react';

/** For the click on a choice of files: a file that was corrected has the same name, and is read again all the same. */
export const chooseAgain = ({ currentTarget }: MouseEvent<HTMLInputElement>): void => {
  currentTarget.value = '';
};
