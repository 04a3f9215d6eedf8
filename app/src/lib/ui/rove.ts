import type { Attachment } from 'svelte/attachments';

const CONTROLS = 'button, a[href]';

/** Makes a row of controls one stop for Tab, walked by arrows, Home and End. */
export const rove: Attachment<HTMLElement> = (row) => {
  const controls = (): HTMLElement[] => [...row.querySelectorAll<HTMLElement>(CONTROLS)];
  function settle(current = row.querySelector<HTMLElement>('[tabindex="0"]') ?? undefined): void {
    const all = controls();
    const stop = current && all.includes(current) ? current : all[0];
    for (const control of all) control.tabIndex = control === stop ? 0 : -1;
  }
  function keydown(e: KeyboardEvent): void {
    const all = controls();
    const at = all.indexOf(e.target as HTMLElement);
    if (at < 0 || e.ctrlKey || e.altKey || e.metaKey) return;
    const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: -1 }[e.key];
    if (to === undefined) return;
    e.preventDefault();
    all.at(to % all.length)!.focus();
  }
  const focusin = (e: FocusEvent): void => settle(e.target as HTMLElement);
  row.addEventListener('keydown', keydown);
  row.addEventListener('focusin', focusin);
  const watch = new MutationObserver(() => settle());
  watch.observe(row, { childList: true, subtree: true });
  settle();
  return () => {
    row.removeEventListener('keydown', keydown);
    row.removeEventListener('focusin', focusin);
    watch.disconnect();
  };
};
