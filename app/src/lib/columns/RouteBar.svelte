<script lang="ts">
  import { tick } from 'svelte';
  import House from '@lucide/svelte/icons/house';
  import Pencil from '@lucide/svelte/icons/pencil';
  import FileOutput from '@lucide/svelte/icons/file-output';
  import Image from '@lucide/svelte/icons/image';
  import Palette from '@lucide/svelte/icons/palette';
  import PencilLine from '@lucide/svelte/icons/pencil-line';
  import ScanEye from '@lucide/svelte/icons/scan-eye';
  import Spline from '@lucide/svelte/icons/spline';
  import { STEP_NAMES, STEPS, type Step } from '$lib/desk/steps';
  import { picturePpi } from '@mirrot/core';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { stepSet } from './step-set';
  import CommandButton from './CommandButton.svelte';
  import NameField from '$lib/ui/NameField.svelte';
  import { rove } from '$lib/ui/rove';

  let { workplace }: { workplace: Workplace } = $props();
  const { command } = stepSet();
  const desk = $derived(workplace.desk);
  const saving = $derived(workplace.saving);
  let naming = $state(false);
  let pencil: HTMLButtonElement | undefined = $state();

  const count = (n: number, one: string, none: string): string =>
    n === 0 ? none : `${n} ${one}${n === 1 ? '' : 's'}`;
  const figures: Readonly<Record<Step, string>> = $derived.by(() => {
    const { paths, anchors, painted, shapes } = desk.drawing.figures;
    const { traced } = desk.picture;
    return {
      mount: traced ? `${Math.round(picturePpi(traced))} ppi` : 'no picture',
      'block-in': count(paths, 'path', 'no path'),
      refine:
        desk.picture.driftSettings && desk.picture.drifts.all && !Number.isNaN(desk.picture.drifts.all.mean)
          ? `${desk.picture.drifts.all.mean.toFixed(1)} px of ${count(desk.picture.drifts.measuredShapes, 'shape', 'none')}`
          : count(anchors, 'anchor', 'no anchor'),
      colour: shapes === 0 ? 'no shape' : `${painted} of ${shapes}`,
      proof: desk.proving.open
        ? count(desk.proving.open.length, 'finding', 'no finding')
        : count(workplace.copies.length, 'kept', 'none kept').replace('kepts', 'kept'),
      export: workplace.lastFile ?? 'not yet',
    };
  });
  const waiting = $derived(`${saving.waiting} ${saving.waiting === 1 ? 'change' : 'changes'}`);
  const kept = $derived(
    {
      kept: 'all changes kept',
      sending: `keeping ${waiting} …`,
      away: `server away, ${waiting} kept here`,
      conflict: `changed in another tab, ${waiting} kept here`,
      full: `server’s disk is full, ${waiting} kept here`,
      outdated: `page out of date, ${waiting} kept here`,
      'signed-out': `signed out, ${waiting} kept here`,
    }[saving.state],
  );
  const asides = $derived(
    `${workplace.asides.length} ${workplace.asides.length === 1 ? 'change' : 'changes'} set aside`,
  );
  const ICONS = {
    mount: Image,
    'block-in': PencilLine,
    refine: Spline,
    colour: Palette,
    proof: ScanEye,
    export: FileOutput,
  } as const;
  /** On narrow pages the columns are called from here, and what is seldom wanted is left to the finder. */
  const tools = $derived.by(() => {
    const { columns } = workplace;
    if (columns.folds('stack')) return ['undo', 'redo', 'column-stack', 'column-eye', 'finder'];
    if (columns.folds('eye')) return ['undo', 'redo', 'keep-copy', 'finder', 'column-eye'];
    return ['undo', 'redo', 'keep-copy', 'finder', 'keys', 'light-dark'];
  });
</script>

<header class="route">
  <div class="project">
    <a class="icon-button" href="/" aria-label="Back to the shelf" data-tip="Back to the shelf">
      <House size={20} strokeWidth={1.75} />
    </a>
    <div class="names">
      <h1>
        <NameField
          label="Name of the project"
          name={workplace.project.name}
          editing={naming}
          change={(name) => void workplace.rename(name)}
          done={(byKey) => {
            naming = false;
            if (byKey) void tick().then(() => pencil?.focus());
          }}
          refuse={(text) => desk.say(text, 'bad')}
        />
        {#if !naming}
          <button
            bind:this={pencil}
            class="pencil"
            aria-label="Rename the project"
            data-tip="Rename"
            onclick={() => (naming = true)}
          >
            <Pencil size={14} strokeWidth={1.75} />
          </button>
        {/if}
      </h1>
      <p class="kept {saving.state}">
        <span role="status">{kept}</span>
        {#if workplace.asides.length > 0}
          · <button class="aside" onclick={() => workplace.showAsides()}>{asides}</button>
        {/if}
      </p>
    </div>
  </div>

  <nav aria-label="Steps" {@attach rove}>
    {#each STEPS as step, i (step)}
      {@const Icon = ICONS[step]}
      <button
        class="step"
        aria-current={desk.step === step ? 'step' : undefined}
        data-tip="{STEP_NAMES[step]} ({i + 1})"
        onclick={() => command(`open-${step}`).run(workplace)}
      >
        <span class="title">{STEP_NAMES[step]}</span>
        <span class="icon" aria-hidden="true"><Icon size={18} strokeWidth={1.75} /></span>
        <span class="figure">{figures[step]}</span>
      </button>
    {/each}
  </nav>

  <div class="tools" {@attach rove} role="toolbar" aria-label="Undo, copies, commands">
    {#each tools as id (id)}<CommandButton {workplace} {id} bare />{/each}
  </div>
</header>

<style>
  .route {
    grid-area: route;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto minmax(max-content, 1fr);
    align-items: stretch;
    height: 52px;
    border-bottom: 1px solid var(--line);
    background: var(--paper);
  }
  .project {
    display: flex;
    align-items: center;
    gap: 6px;
    min-width: 0;
    padding-left: 10px;
  }
  .names {
    min-width: 0;
  }
  h1 {
    display: flex;
    align-items: center;
    gap: 4px;
    max-width: 320px;
    font-size: 16px;
    line-height: 1.2;
  }
  .pencil {
    flex: none;
    padding: 2px;
    border-radius: 4px;
    color: var(--quiet);
  }
  .kept {
    overflow: hidden;
    font-size: 12px;
    color: var(--quiet);
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .away,
  .full,
  .signed-out,
  .conflict {
    color: var(--brick);
    font-weight: 600;
  }
  .aside {
    color: var(--brick);
    font-weight: 600;
    text-decoration: underline;
  }
  nav {
    display: flex;
  }
  .step {
    display: flex;
    flex-direction: column;
    align-items: center;
    justify-content: center;
    width: 124px;
    padding: 0 4px;
    border-bottom: 3px solid transparent;
    font-family: 'Bricolage Grotesque Variable', sans-serif;
  }
  .step:hover {
    background: var(--desk);
  }
  .title {
    font-size: 14.5px;
    font-weight: 650;
  }
  .figure {
    max-width: 100%;
    overflow: hidden;
    font-size: 12px;
    color: var(--quiet);
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .step[aria-current] {
    border-bottom-color: var(--carrot);
    background: var(--ledge);
  }
  .step[aria-current] .figure {
    color: var(--carrot-text);
  }
  .icon {
    display: none;
  }
  @media (width < 1200px) {
    .step {
      width: 92px;
    }
  }
  @media (width < 1000px) {
    .step {
      width: 68px;
    }
    .title {
      /* Its name is still what it is called by. */
      position: absolute;
      width: 1px;
      height: 1px;
      overflow: hidden;
      clip-path: inset(50%);
    }
    .icon {
      display: block;
    }
    .pencil {
      display: none;
    }
  }
  @media (width < 760px) {
    .route {
      grid-template: 'project tools' 44px 'steps steps' 52px / minmax(0, 1fr) auto;
      height: 96px;
    }
    .project {
      grid-area: project;
      padding-left: 4px;
    }
    .tools {
      grid-area: tools;
      padding-right: 4px;
    }
    nav {
      grid-area: steps;
      border-top: 1px solid var(--line);
    }
    .step {
      flex: 1;
      width: auto;
      min-width: 0;
      padding: 0;
    }
    .figure {
      max-width: 100%;
      overflow: hidden;
      text-overflow: ellipsis;
    }
  }
  .tools {
    display: flex;
    justify-content: flex-end;
    align-items: center;
    gap: 4px;
    padding-right: 12px;
  }
</style>
