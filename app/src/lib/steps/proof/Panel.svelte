<script lang="ts">
  import type { Workplace } from '$lib/desk/workplace.svelte';
  import { age } from '$lib/ui/ages';

  let { workplace }: { workplace: Workplace } = $props();
  const figures = $derived(workplace.desk.drawing.figures);
</script>

<section>
  <h3 class="panel-title">The drawing</h3>
  <dl>
    <dt>shapes</dt>
    <dd>{figures.shapes}</dd>
    <dt>paths</dt>
    <dd>{figures.paths}</dd>
    <dt>anchors</dt>
    <dd>{figures.anchors}</dd>
    <dt>without fill or stroke</dt>
    <dd>{figures.shapes - figures.painted}</dd>
  </dl>
  <p class="quiet">Hold Q for the bare picture, Shift+Q for the bare drawing.</p>
</section>
<section>
  <h3 class="panel-title">Kept copies <span>{workplace.copies.length}</span></h3>
  {#if workplace.copies.length === 0}
    <p class="quiet">None yet. “Keep a copy” names the drawing as it is now, to go back to.</p>
  {/if}
  <ul>
    {#each workplace.copies as copy (copy.id)}
      <li>
        <span class="name" dir="auto">{copy.name}<small class="quiet">{age(copy.createdAt)}</small></span>
        <button class="plain-button" onclick={() => void workplace.goBackTo(copy)}>Go back</button>
      </li>
    {/each}
  </ul>
</section>

<style>
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px 10px;
    margin-bottom: 8px;
  }
  dt {
    color: var(--quiet);
  }
  li {
    display: flex;
    align-items: center;
    justify-content: space-between;
    gap: 8px;
    padding: 3px 0;
  }
  .name {
    display: flex;
    flex-direction: column;
    min-width: 0;
    overflow-wrap: anywhere;
  }
</style>
