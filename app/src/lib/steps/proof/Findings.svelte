<script lang="ts">
  import {
    canMend,
    findShape,
    FINDING_KINDS,
    fixAll,
    fixFor,
    putAside,
    type Finding,
    type FindingKind,
  } from '@mirrot/core';
  import { chooseShapes } from '$lib/desk/choice';
  import { PROOF_USES } from '$lib/desk/proving.svelte';
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import Segments from '$lib/ui/Segments.svelte';
  import Tolerances from './Tolerances.svelte';
  import { tolerancesOf } from '../tolerances';
  import { proveWhileShown } from '../prove.svelte';
  import { FINDING_WORDS } from '$lib/finding-words';

  // What is probably not meant: where it is, how much, and what mends it.
  let { workplace }: { workplace: Workplace } = $props();
  const desk = $derived(workplace.desk);
  const { proving } = $derived(desk);
  const tolerances = $derived(tolerancesOf(proving));
  const unit = $derived(desk.art.sheet.unit);
  proveWhileShown(() => workplace);

  const found = $derived(proving.found ?? []);
  const groups = $derived(
    FINDING_KINDS.map((kind) => ({ kind, list: found.filter((one) => one.kind === kind) })).filter(({ list }) => list.length > 0), // prettier-ignore
  );
  const openIn = (list: readonly Finding[]): number =>
    list.filter(({ key }) => !proving.aside.has(key)).length;
  const numberOf = $derived(new Map(found.map(({ key }, i) => [key, i + 1])));
  const nameOf = ({ shapes: [id] }: Finding): string =>
    id ? (findShape(desk.art, id)?.name ?? '') : 'Palette';
  /** As many rows of a kind as anyone looks through. */
  const MOST_ROWS = 50;

  function show(finding: Finding): void {
    proving.shown = finding.key;
    if (finding.at) {
      const { x, y } = finding.at;
      desk.looking.bringIntoSight({ x0: x, y0: y, x1: x, y1: y });
    }
    if (finding.shapes.length > 0)
      desk.choose(chooseShapes(finding.shapes.filter((id) => findShape(desk.art, id))));
  }
  function fix(finding: Finding): void {
    const recipe = fixFor(desk.drawing.kept, finding, tolerances);
    if (!recipe) return desk.say('It is not there any more.');
    show(finding);
    const [title] = FINDING_WORDS[finding.kind];
    desk.makeOffer({ text: `${title}: ${nameOf(finding)} mended`, label: `Mend: ${title.toLowerCase()}`, recipe, preview: true }); // prettier-ignore
  }
  function fixKind(kind: FindingKind): void {
    const { art, count } = fixAll(desk.drawing.kept, kind, tolerances, new Set(proving.aside.keys()));
    const [title] = FINDING_WORDS[kind];
    if (count === 0 || !desk.become(`Mend: ${title.toLowerCase()}`, art)) return desk.say('Nothing of it can be mended without you.'); // prettier-ignore
    desk.say(`${count} mended. One step back undoes all of it.`, 'good');
  }

  let asking: string | null = $state(null);
  let reason = $state('');
  function leave(key: string, why: string | null): void {
    asking = null;
    desk.change(why === null ? 'Take up a finding' : 'Put a finding aside', putAside(key, why));
  }
</script>

<section>
  <h3 class="panel-title">Findings</h3>
  <Segments
    label="What it is proved for"
    value={proving.use}
    options={PROOF_USES.map((use) => [use, use] as const)}
    change={(use) => (proving.use = use)}
  />
  <Tolerances {proving} unit={desk.art.sheet.unit} />
  {#if proving.trouble}<p>{proving.trouble}</p>{/if}
  <p class="quiet" aria-live="polite">
    {#if proving.found === null}Looking through the drawing.
    {:else if proving.open!.length === 0}Nothing is left that looks like a mistake.
    {:else}{proving.open!.length}
      {proving.open!.length === 1 ? 'thing looks' : 'things look'} like a mistake.{/if}
  </p>
  {#each groups as { kind, list } (kind)}
    {@const [title, amount] = FINDING_WORDS[kind]}
    <Fold {title} figure={openIn(list) === 0 ? 'aside' : String(openIn(list))}>
      <ul>
        {#each list.slice(0, MOST_ROWS) as finding (finding.key)}
          {@const why = proving.aside.get(finding.key)}
          <li class:aside={why !== undefined} class:shown={proving.shown === finding.key}>
            <button class="what" onclick={() => show(finding)}>
              <b>{numberOf.get(finding.key)}</b>
              <span dir="auto">{nameOf(finding)}</span>
              <span class="quiet">{amount(finding, unit)}</span>
            </button>
            {#if why !== undefined}
              <p class="quiet" dir="auto">aside: {why || 'no reason given'}</p>
              <button class="plain-button" onclick={() => leave(finding.key, null)}>Take up again</button>
            {:else if asking === finding.key}
              <input
                type="text"
                dir="auto"
                maxlength="200"
                aria-label="Why it is put aside"
                placeholder="why"
                bind:value={reason}
                onkeydown={(e) => {
                  if (e.key === 'Enter') leave(finding.key, reason.trim());
                  if (e.key === 'Escape') asking = null;
                }}
              />
              <button class="plain-button" onclick={() => leave(finding.key, reason.trim())}>Put aside</button
              >
            {:else}
              {#if canMend(kind)}
                <button class="plain-button" onclick={() => fix(finding)}>Mend</button>
              {/if}
              <button
                class="plain-button"
                onclick={() => {
                  asking = finding.key;
                  reason = '';
                }}>Put aside</button
              >
            {/if}
          </li>
        {/each}
      </ul>
      {#if list.length > MOST_ROWS}<p class="quiet">{list.length - MOST_ROWS} more of them.</p>{/if}
      {#if openIn(list) > 1 && canMend(kind)}
        <button class="plain-button" onclick={() => fixKind(kind)}>Mend all {openIn(list)}</button>
      {/if}
    </Fold>
  {/each}
</section>

<style>
  section > p {
    margin: 6px 0 4px;
  }
  ul {
    margin: 0;
    padding: 0;
    list-style: none;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    padding: 3px 4px;
    border-radius: 4px;
  }
  li.shown {
    background: var(--carrot-wash);
  }
  li p {
    flex: 1;
    min-width: 0;
    margin: 0;
    align-self: center;
    font-size: 12.5px;
  }
  li input {
    flex: 1;
    min-width: 0;
    padding: 2px 6px;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--paper);
  }
  .what {
    display: flex;
    flex-basis: 100%;
    gap: 6px;
    align-items: baseline;
    min-width: 0;
    min-height: 24px;
    text-align: start;
  }
  .what b {
    min-width: 18px;
    font-variant-numeric: tabular-nums;
  }
  .what span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .what .quiet {
    margin-left: auto;
    flex: none;
  }
  .aside .what {
    color: var(--quiet);
  }
</style>
