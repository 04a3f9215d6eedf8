<script lang="ts">
  import { OUTDATED_TEXT } from '$lib/outdated';
  import { shapesOf } from '@mirrot/core';
  import { onMount, untrack } from 'svelte';
  import Bed from '$lib/bed/Bed.svelte';
  import { createPressMachine } from '$lib/bed/behaviour';
  import { pressOn } from '$lib/bed/press';
  import { borrowPixels, pixelsKey, type LoadedPicture } from '$lib/desk/rasters';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { provideOneStep } from '$lib/ui/one-step';
  import Dialogs from './Dialogs.svelte';
  import Eye from './Eye.svelte';
  import type { Place } from '$lib/desk/keyboard';
  import { provideStepSet, type StepSet } from './step-set';
  import Ledge from './Ledge.svelte';
  import type * as Arrivals from './arrivals';
  import RouteBar from './RouteBar.svelte';
  import Stack from './Stack.svelte';
  import Status from './Status.svelte';

  let { workplace, steps }: { workplace: Workplace; steps: StepSet } = $props();
  provideStepSet(untrack(() => steps));
  const { desk, saving } = untrack(() => workplace);

  const machine = createPressMachine(pressOn(desk), (busy) => (desk.pointing.pressing = busy));
  const keyboard = untrack(() => steps.keyboard(workplace, machine));
  provideOneStep((key, run) => desk.asOneStep(key, run));
  let bed: HTMLElement | undefined = $state();
  let fitted = false;
  /** Drift has been asked for once. */
  let drifted = $state(false);
  /** Milliseconds without a change after which anchors are counted. */
  const COUNTED_AFTER = 250;

  // The sheet fills the bed once the bed has its size.
  $effect(() => {
    if (fitted || !bed || desk.looking.bed.width < 1) return;
    fitted = true;
    untrack(() => desk.looking.begin());
  });
  onMount(() => {
    bed?.focus({ preventScroll: true });
    void workplace.loadCopies();
    void workplace.loadAsides();
    return () => workplace.leave();
  });
  // An exercise's effort is counted for as long as the desk is open, whatever of it is folded away.
  onMount(() => {
    if (workplace.project.practised === null) return;
    const counting = import('$lib/practice/effort').then(
      (module) => module.countEffort(workplace.project.id),
      () => void desk.say('Time and presses could not be counted. Reload the page; nothing is lost.', 'bad'),
    );
    return () => void counting.then((end) => end?.());
  });

  // Pixels of the traced picture, for sampling, the loupe and the inks.
  const pixels = $derived(desk.picture.traced && pixelsKey(desk.picture.traced));
  $effect(() => {
    if (!pixels) return;
    const picture = untrack(() => desk.picture.traced!);
    const fresh = (loaded: LoadedPicture | null): void => {
      desk.picture.inks.raster = loaded;
      const shapes = shapesOf(desk.art).map((p) => p.shape);
      if (loaded) desk.picture.inks.chooseAll(shapes, desk.picture.traced);
    };
    return borrowPixels(picture, fresh, () =>
      desk.say('The picture’s pixels could not be fetched, so no colour can be sampled now.', 'bad'),
    );
  });

  // Drift of what is drawn, while it is looked at.
  $effect(() => {
    const by = desk.step === 'refine' || desk.step === 'proof' || drifted ? desk.picture.driftSettings : null;
    if (!by) return;
    drifted = true;
    const { art } = desk;
    const first = desk.live ? [desk.live.shape] : [...desk.choice.shapes];
    untrack(() => desk.picture.drifts.measure(art, by, first));
    if ((desk.step !== 'refine' && desk.step !== 'proof') || desk.pointing.pressing) return;
    const resting = setTimeout(() => desk.picture.drifts.count(), COUNTED_AFTER);
    return () => clearTimeout(resting);
  });

  // What keeps changes from the server is said, with what helps. Two tabs on one project: the later one can take over.
  const troubles: Partial<Record<typeof saving.state, { text: string; label: string; run: () => void }>> = {
    conflict: {
      text: 'This project was changed in another tab. Nothing of either is lost: take over to bring both together.',
      label: 'Take over',
      run: () => void workplace.takeOver(),
    },
    outdated: { text: OUTDATED_TEXT, label: 'Reload', run: () => location.reload() },
    'signed-out': {
      text: 'The server wants its access key. What you draw is kept here until you sign in.',
      label: 'Sign in',
      run: () => window.open('/sign-in'),
    },
  };
  $effect(() => {
    const trouble = troubles[saving.state];
    if (trouble) untrack(() => desk.say(trouble.text, 'bad', trouble));
  });
  $effect(() => {
    if (saving.storeFails)
      untrack(() =>
        desk.say(
          'This browser keeps nothing for Mirrot (it is full, or set so). Changes go to the server all the same; do not close the page while it is away.',
          'bad',
        ),
      );
  });
  /** The page comes into sight again, or the network back. */
  function comeBack(): void {
    if (saving.state !== 'kept') saving.retry();
    void saving.refresh();
  }

  function placeOf(target: EventTarget | null): Place {
    if (!(target instanceof HTMLElement) || target === bed || target === document.body) return 'bed';
    if (
      target.matches(
        'textarea, select, [contenteditable], input:not([type=range], [type=checkbox], [type=radio])',
      )
    )
      return 'text';
    return 'control';
  }
  const progress = $derived(workplace.progress ?? desk.picture.progress);
  const modal = (): boolean => workplace.dialogShown !== null;
  function keydown(e: KeyboardEvent): void {
    if (modal() || e.defaultPrevented) return;
    toPointer = e.shiftKey;
    if (keyboard.down(e, placeOf(e.target))) e.preventDefault();
  }
  function keyup(e: KeyboardEvent): void {
    if (e.key === 'Alt') e.preventDefault();
    keyboard.up(e);
  }
  // A press with the pointer on a button or slider gives the keyboard back to the bed.
  function backToBed(e: PointerEvent): void {
    const target =
      e.target instanceof Element ? e.target.closest('button, [role=slider], [role=row], label') : null;
    if (
      !target ||
      target.closest('[role=dialog]') ||
      target.querySelector('input:not([type=radio], [type=checkbox])')
    )
      return;
    setTimeout(() => {
      if (!modal() && placeOf(document.activeElement) !== 'text') bed?.focus({ preventScroll: true });
    });
  }
  // What had the keyboard has gone (an offer taken, a notice closed, a row removed): the bed has it then.
  function catchFocus(): void {
    setTimeout(() => {
      if (document.activeElement === document.body && document.hasFocus() && !modal())
        bed?.focus({ preventScroll: true });
    });
  }
  $effect(() => {
    void [
      desk.offer,
      desk.notice,
      progress,
      workplace.question,
      desk.pointing.listed,
      workplace.dialogShown,
      desk.step,
    ];
    catchFocus();
  });
  // What copies, pastes and drops comes after the page; the browser's own events do it, at once and without asking.
  let arrivals: typeof Arrivals | null = null;
  const arriving = import('./arrivals').then(
    (module) => (arrivals = module),
    () => void desk.say('Copy, paste and drop could not be fetched. Reload the page.'),
  );
  /** Shift was held with the key that pastes: it goes where the pointer is. */
  let toPointer = false;
  /** Words that are chosen, or a text field, keep the clipboard to themselves. */
  const ofText = (e: ClipboardEvent): boolean =>
    placeOf(e.target) === 'text' || modal() || getSelection()?.isCollapsed === false;
  function copy(e: ClipboardEvent): void {
    if (ofText(e) || !e.clipboardData || !arrivals || desk.live) return;
    if (arrivals[e.type === 'cut' ? 'cutChosen' : 'copyChosen'](desk, e.clipboardData)) e.preventDefault();
  }
  function paste(e: ClipboardEvent): void {
    if (ofText(e) || !e.clipboardData) return;
    const at = toPointer ? desk.pointing.pointer : null;
    const data = copyOf(e.clipboardData);
    const take = (by: typeof arrivals | void) => by?.takePasted(workplace, data, at);
    if (arrivals ? take(arrivals) : arriving.then(take)) e.preventDefault();
  }
  function drop(e: DragEvent): void {
    e.preventDefault();
    const { dataTransfer, target, clientX, clientY } = e;
    const data = dataTransfer && copyOf(dataTransfer);
    if (data) void arriving.then((by) => by?.takeDropped(workplace, { data, target, clientX, clientY }, bed));
  }
  /** What was pasted or dropped, which the browser takes away once its event is over. */
  function copyOf(data: DataTransfer): DataTransfer {
    const copy = new DataTransfer();
    for (const item of data.items) {
      const file = item.getAsFile();
      if (file) copy.items.add(file);
      else copy.setData(item.type, data.getData(item.type));
    }
    return copy;
  }
  function unloading(e: BeforeUnloadEvent): void {
    // What is not acknowledged is kept in the browser and sent later; where that fails, closing would lose it.
    if (saving.storeFails && saving.waiting > 0) e.preventDefault();
  }
</script>

<svelte:head><title>{workplace.project.name} · Mirrot</title></svelte:head>
<svelte:document
  onvisibilitychange={() => {
    if (document.visibilityState === 'hidden') void workplace.rememberLeft();
  }}
/>
<svelte:window
  bind:innerWidth={workplace.columns.width}
  onkeydown={keydown}
  onkeyup={keyup}
  onblur={() => keyboard.blur()}
  onfocus={comeBack}
  ononline={comeBack}
  onpagehide={() => {
    saving.flush();
    void workplace.rememberLeft();
  }}
  onpointerup={backToBed}
  onfocusout={(e) => !e.relatedTarget && catchFocus()}
  oncopy={copy}
  oncut={copy}
  onpaste={paste}
  onbeforeunload={unloading}
/>

<main class="desk" ondragover={(e) => e.preventDefault()} ondrop={drop}>
  <RouteBar {workplace} />
  {#if workplace.columns.shown('stack')}<Stack {workplace} />{/if}
  <div class="middle">
    <Bed {desk} {machine} bind:element={bed} />
    {#if workplace.benchShown && desk.step === 'export'}
      {#await steps.bench() then { default: Bench }}<Bench {workplace} />{:catch}
        <p class="over-bed">The bench could not be fetched. Reload the page; nothing is lost.</p>
      {/await}
    {/if}
    {#if workplace.replayShown && desk.step === 'proof'}
      {#await steps.replay() then { default: Replay }}<Replay {workplace} />{:catch}
        <p class="over-bed">The replay could not be fetched. Reload the page; nothing is lost.</p>
      {/await}
    {/if}
    {#if desk.choosing.focus}
      {#await import('./Crumbs.svelte') then { default: Crumbs }}<Crumbs {desk} />{/await}
    {/if}
    {#if desk.pointing.listed}
      {#await import('./SpotList.svelte') then { default: SpotList }}<SpotList {desk} {bed} />{/await}
    {/if}
    {#if workplace.question}
      {#await import('./Question.svelte') then { default: Question }}<Question
          {workplace}
        />{:catch}<!-- asked again when it is pasted again -->{/await}
    {:else if desk.offer && !desk.offer.passing}
      <div class="over-bed" role="status">
        <span>{desk.offer.text}</span>
        {#if desk.offer.turn}
          <button class="plain-button" onclick={() => desk.offer?.turn?.()}
            >Other way <kbd class="key">R</kbd></button
          >
        {/if}
        <button class="plain-button" onclick={() => desk.takeOffer()}
          >Take <kbd class="key">Enter</kbd></button
        >
        <button class="plain-button" onclick={() => desk.leaveOffer()}
          >Leave <kbd class="key">Esc</kbd></button
        >
      </div>
    {/if}
    {#if progress}
      <div class="over-bed" role="status">
        <span dir="auto">{progress.text}</span>
        <progress value={progress.share ?? undefined} max="1" aria-label={progress.text}></progress>
        <button class="plain-button" onclick={() => progress?.stop()}>Stop</button>
      </div>
    {/if}
  </div>
  {#if workplace.columns.shown('eye')}<Eye {workplace} />{/if}
  <Ledge {workplace} />
  <Status {workplace} />
</main>
{#await import('$lib/ui/Notice.svelte') then { default: Notice }}
  <Notice notice={desk.notice} close={() => (desk.notice = null)} />
{/await}
{#if workplace.desk.pointing.task?.kind === 'pour' || workplace.desk.pointing.task?.kind === 'weed'}
  {#await import('./LineWork.svelte') then { default: LineWork }}<LineWork
      {workplace}
    />{:catch}<!-- what is done says that nothing is known yet -->{/await}
{/if}
<Dialogs {workplace} />

<style>
  .desk {
    display: grid;
    grid-template:
      'route route route' 52px 'stack bed eye' minmax(0, 1fr)
      'ledge ledge ledge' 60px 'status status status' 26px /
      auto minmax(0, 1fr) auto;
    height: 100%;
    overflow: clip;
  }
  @media (width < 760px) {
    .desk {
      grid-template-rows: 96px minmax(0, 1fr) 56px 26px;
    }
  }
  .middle {
    position: relative;
    grid-area: bed;
    display: grid;
    min-width: 0;
    min-height: 0;
  }
  progress {
    width: 120px;
    accent-color: var(--carrot);
  }
</style>
