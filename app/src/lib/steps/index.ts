import { command, COMMANDS, LEDGE } from './commands';
import { createKeyboard } from './keyboard';
import { BENCH, DIALOGS, PANELS } from './panels';

/** All that the steps bring to the desk: what their ledges, panels, dialogs and keys are. */
export const STEP_SET = {
  commands: COMMANDS,
  command,
  ledge: LEDGE,
  panels: PANELS,
  dialogs: DIALOGS,
  bench: BENCH,
  keyboard: createKeyboard,
};
