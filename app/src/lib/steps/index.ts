import { command, COMMANDS, LEDGE } from './commands';
import { createKeyboard } from './keyboard';
import { BENCH, DIALOGS, PANELS, REPLAY } from './panels';

/** All that the steps bring to the desk: what their ledges, panels, dialogs and keys are. */
export const STEP_SET = {
  commands: COMMANDS,
  command,
  ledge: LEDGE,
  panels: PANELS,
  dialogs: DIALOGS,
  bench: BENCH,
  replay: REPLAY,
  keyboard: createKeyboard,
};
