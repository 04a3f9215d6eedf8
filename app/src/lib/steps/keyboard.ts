import { commandForKey, keyName } from '$lib/desk/command';
import { NOTHING_CHOSEN } from '$lib/desk/choice';
import type { Desk } from '$lib/desk/desk.svelte';
import type { Keyboard } from '$lib/desk/keyboard';
import type { Workplace } from '$lib/desk/workplace.svelte';
import type { PressMachine } from '$lib/bed/behaviour';
import { endPath } from '$lib/bed/ending';
import { command, COMMANDS } from './commands';
import { createKeyPress, CROSSHAIR } from './crosshair';

/** Keys that work for as long as they are held, by the steps they work in; all when left out. */
const HELD: Readonly<Record<string, { readonly as: string; readonly steps?: readonly Desk['step'][] }>> = {
  Q: { as: 'q' },
  'Shift+Q': { as: 'shift+q' },
  A: { as: 'a', steps: ['block-in'] },
  C: { as: 'c', steps: ['block-in', 'refine'] },
  T: { as: 't', steps: ['refine'] },
  D: { as: 'd' },
  Space: { as: 'space' },
};

/** Milliseconds within which a key that can be held counts as tapped. */
const TAP = 300;

/** Keys that a control keeps when it was reached by keyboard. */
const CONTROL_KEYS = /^(Space|Enter|Home|End|PageUp|PageDown|[←→↑↓])$/;

/** One layer a press: a drag, an offer, sampling, the path, the anchors, the group worked in, the choice. (Lists close themselves.) */
function escape(w: Workplace, machine: PressMachine): void {
  const { desk, columns } = w;
  if (machine.cancel() || columns.clear()) return;
  if (desk.pointing.task) {
    desk.pointing.task = null;
    desk.leaveOffer();
  } else if (desk.offer && !desk.offer.passing) desk.leaveOffer();
  else if (desk.colouring.sampling) desk.colouring.sampling = null;
  else if (desk.colouring.brush) desk.colouring.brush = false;
  else if (desk.live) endPath(desk);
  else if (desk.pointing.cross) desk.pointing.cross = null;
  else if (desk.next.fresh) desk.next.fresh = false;
  else if (w.benchShown && desk.step === 'export') w.benchShown = false;
  else if (w.replayShown && desk.step === 'proof') w.replayShown = false;
  else if (desk.choice.anchors.length > 0 || desk.choice.segment || desk.choice.handle)
    desk.choose({ ...NOTHING_CHOSEN, level: 'path', shapes: desk.choice.shapes });
  else if (!desk.choosing.leaveFocus()) desk.choose(NOTHING_CHOSEN);
}

/** What keys do on the desk. */
export function createKeyboard(w: Workplace, machine: PressMachine): Keyboard {
  const { desk } = w;
  let historyAtT: Desk['history'] | null = null;
  let heldC = { since: 0, history: desk.history };

  const keyPress = createKeyPress(desk, machine);

  function letGo(key: string): void {
    if (key === 'c' && desk.pointing.held.has('c')) {
      desk.pointing.hold('c', false);
      // A tap switches snapping; held, it only suspended it.
      if (desk.now() - heldC.since < TAP && desk.history === heldC.history) command('snap').run(w);
      return;
    }
    if (key !== 't' || !desk.pointing.held.has('t')) return desk.pointing.hold(key, false);
    desk.pointing.hold('t', false);
    machine.cancel();
    // A tap on T that added nothing starts a path; what was added while it was held ends with it.
    if (desk.live) endPath(desk);
    else if (desk.history === historyAtT) command('new-path').run(w);
  }

  return {
    down(e, place) {
      const name = keyName(e);
      if (place === 'text') return false;
      if (e.key === 'Alt') return true;
      if (place === 'control' && CONTROL_KEYS.test(name)) return false;
      if (e.key === 'Escape') {
        escape(w, machine);
        return true;
      }
      if (!w.singleKeys && /^(Shift\+)?[^←→↑↓]$/u.test(name)) return false;
      if (machine.busy && machine.key(e.key.toLowerCase())) return true;
      const held = HELD[name];
      if (held && (!held.steps || held.steps.includes(desk.step))) {
        if (e.repeat) return true;
        if (held.as === 't') historyAtT = desk.history;
        if (held.as === 'c') heldC = { since: desk.now(), history: desk.history };
        desk.pointing.hold(held.as, true);
        return true;
      }
      if (name === 'Enter' && desk.offer && !desk.offer.passing) {
        desk.takeOffer();
        return true;
      }
      if (keyPress.held) {
        if (/Enter$/.test(name)) {
          if (!e.repeat) keyPress.letGo();
        } else if (/[←→↑↓]$/.test(name)) {
          commandForKey(CROSSHAIR, name, w)?.run(w, e);
          keyPress.move();
        }
        return true;
      }
      if (desk.pointing.cross && !machine.busy && (name === 'Enter' || name === 'Shift+Enter')) {
        if (!e.repeat) keyPress[name === 'Enter' ? 'click' : 'hold']();
        return true;
      }
      // Alt with an arrow would leave the page.
      const kept = /^Alt\+[←→↑↓]$/.test(name);
      if (machine.busy) return kept;
      const found = commandForKey(COMMANDS, name, w);
      if (!found) return kept;
      found.run(w, e);
      return true;
    },
    up(e) {
      const name = keyName({
        key: e.key,
        code: e.code,
        shiftKey: false,
        ctrlKey: false,
        metaKey: false,
        altKey: false,
      });
      if (name === 'Q') {
        letGo('q');
        letGo('shift+q');
      } else if (HELD[name]) letGo(HELD[name].as);
    },
    blur() {
      for (const key of [...desk.pointing.held]) desk.pointing.hold(key, false);
    },
  };
}
