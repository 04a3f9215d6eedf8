import type { Recipe } from '../change';

/** Leaves something that the proof found as it is, and says why; null takes it up again. */
export const putAside =
  (finding: string, reason: string | null): Recipe =>
  (draft) => {
    const at = draft.aside.findIndex(({ id }) => id === finding);
    if (reason === null) {
      if (at >= 0) draft.aside.splice(at, 1);
    } else if (at >= 0) draft.aside[at]!.reason = reason;
    else draft.aside.push({ id: finding, reason });
  };
